import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { nextTimes } from "../../api/queries";
import type { Draft } from "../../domain/session/draft";
import { capital } from "../../ui/capital";

const STEP = { on: "One notch on", hold: "As it is", back: "One notch back" } as const;

/** What to do with the last sessions the next time. */
export function NextTime({ personId }: { personId: number }) {
  const query = useQuery(nextTimes(personId));
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
            <Step key={next.session_id} next={next} />
          ))}
        </ul>
      )}
    </section>
  );
}

function Step({ next }: { next: Schemas["NextTimeOut"] }) {
  const navigate = useNavigate();
  const what = next.name ? capital(next.name) : STEP[next.step];
  const lay = () =>
    navigate("/bench", {
      state: {
        lay: {
          kind: "session",
          document: next.document,
          target: next.target as Draft["target"],
          said: `${next.title}: ${what.toLowerCase()}.`,
        },
      },
    });
  return (
    <li className="grid grid-cols-[1fr_auto] items-start gap-3 py-2">
      <div>
        <h3>
          {next.title}: {what.toLowerCase()}
        </h3>
        <p className="quiet text-[13px]">{next.reason}</p>
        {next.changes.map((change) => (
          <p key={change.name} className="text-[13px]">
            {capital(change.name)}{" "}
            {change.before === change.after ? `stays ${change.after}` : `${change.before} to ${change.after}`}
          </p>
        ))}
      </div>
      {next.name && (
        <button type="button" className="act" onClick={lay}>
          To the bench
        </button>
      )}
    </li>
  );
}
