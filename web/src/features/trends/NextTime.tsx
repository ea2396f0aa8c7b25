import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { nextTimes } from "../../api/queries";
import type { Draft } from "../../domain/session/draft";
import type { ToLay } from "../../domain/session/toLay";
import type { ToPlan } from "../../domain/toPlan";
import { capital } from "../../ui/capital";
import { NEXT_TIME, useKeys } from "../../ui/keymap";
import { useTrains } from "../../ui/useTrains";

const STEP = { on: "One notch on", hold: "As it is", back: "One notch back" } as const;

type Next = Schemas["NextTimeOut"];

/** What is done with the session: the knob that is turned, or that it stays. */
const what = (next: Next): string => (next.name || STEP[next.step]).toLowerCase();

/** A step laid on the bench, or planned on a day as a session of its own. */
function useSteps(personId: number) {
  const navigate = useNavigate();
  const changed = (next: Next): Pick<Draft, "document" | "target"> => ({
    // The next notch takes the place of the last one in the title.
    document: { ...next.document, title: `${next.title.replace(/ \([^()]*\)$/, "")} (${what(next)})` },
    target: next.target as Draft["target"],
  });
  return {
    lay: (next: Next) => {
      const lay: ToLay = { kind: "session", ...changed(next), said: `${next.title}: ${what(next)}.` };
      navigate("/bench", { state: { lay } });
    },
    plan: (next: Next) => {
      const own = next.name ? changed(next) : null;
      const title = own?.document.title ?? next.title;
      const plan: ToPlan = { title, sessionId: next.session_id, changed: own, people: [personId] };
      navigate("/today", { state: { plan } });
    },
  };
}

/** What to do with the last sessions the next time. */
export function NextTime({ personId }: { personId: number }) {
  const query = useQuery(nextTimes(personId));
  const trains = useTrains();
  const steps = useSteps(personId);
  const first = (act: (next: Next) => void, named: boolean) => () => {
    const next = trains && query.data?.find((each) => each.name || !named);
    if (next) act(next);
  };
  useKeys(NEXT_TIME, { lay: first(steps.lay, true), plan: first(steps.plan, false) });
  return (
    <section aria-label="Next time" className="mt-5 border-t border-[var(--rule)] pt-4">
      <h2>Next time</h2>
      {query.error ? (
        <p role="alert" className="pt-1 text-[13px]">
          {query.error.message}
        </p>
      ) : !query.data ? (
        <p role="status" className="quiet pt-1 text-[13px]">
          Trying what comes next …
        </p>
      ) : query.data.length === 0 ? (
        <p className="quiet pt-1 text-[13px]">No session of the library was logged in the last six weeks.</p>
      ) : (
        <ul>
          {query.data.map((next) => (
            <Step
              key={next.session_id}
              next={next}
              onLay={trains && next.name ? () => steps.lay(next) : null}
              onPlan={trains ? () => steps.plan(next) : null}
            />
          ))}
        </ul>
      )}
    </section>
  );
}

interface StepProps {
  next: Next;
  onLay: (() => void) | null;
  onPlan: (() => void) | null;
}

function Step({ next, onLay, onPlan }: StepProps) {
  return (
    <li className="grid gap-2 py-2">
      <div>
        <h3>
          {next.title}: {what(next)}
        </h3>
        <p className="quiet text-[13px]">{next.reason}</p>
        {next.changes.map((change) => (
          <p key={change.name} className="text-[13px]">
            {capital(change.name)}{" "}
            {change.before === change.after ? `stays ${change.after}` : `${change.before} to ${change.after}`}
          </p>
        ))}
      </div>
      <div className="flex flex-wrap gap-2">
        {onLay && (
          <button type="button" className="act" onClick={onLay}>
            To the bench
          </button>
        )}
        {onPlan && (
          <button type="button" className="act" onClick={onPlan}>
            Plan it
          </button>
        )}
      </div>
    </li>
  );
}
