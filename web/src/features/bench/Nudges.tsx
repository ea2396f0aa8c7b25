import { useMutation } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { capital } from "../../ui/capital";
import type { Nudged } from "./useNudges";

type Nudge = Schemas["NudgeOut"];

interface Props {
  query: Nudged;
  asked: Schemas["NudgeIn"];
  partNames: string[];
  purpose: string;
  onApply: (document: Schemas["SessionDocument"], said: string) => void;
}

/** Small changes with what each would do, and the shortest series of them that reaches the purpose. */
export function Nudges({ query, asked, partNames, purpose, onApply }: Props) {
  const series = useMutation({
    mutationFn: () => need(api.POST("/api/make-it-so", { body: asked })),
    onSuccess: (found) => {
      if (!found.steps.length) return;
      const steps = found.steps.join(", then ");
      const said = found.reached
        ? `Done: ${steps}.`
        : `None reaches it; this comes nearest, ${found.strokes} of 5: ${steps}.`;
      onApply(found.document, `${said} Ctrl Z takes it back.`);
    },
  });
  const nudges = query.data ?? [];
  const nothing = series.data && series.data.steps.length === 0;
  return (
    <section aria-label="Nudges" className="mt-3 ink-t pt-2">
      <div className="flex items-baseline justify-between gap-2">
        <h3>Nudges</h3>
        {query.before && <span className="quiet flex-1 text-[13px]">trying those of now …</span>}
        <button type="button" className="link text-[13px]" disabled={series.isPending} onClick={() => series.mutate()}>
          {series.isPending ? "Trying …" : "Make it so"}
        </button>
      </div>
      {series.error && <p role="alert">{series.error.message}</p>}
      {nothing && (
        <p className="pt-1 text-[13px]" role="status">
          {series.data?.reached
            ? `It trains ${purpose} already.`
            : `No series of small changes reaches ${purpose}. Let one be proposed.`}
        </p>
      )}
      {query.isPending ? (
        <p className="quiet pt-1 text-[13px]">Trying small changes …</p>
      ) : query.error ? (
        <p className="pt-1 text-[13px]" role="alert">
          {query.error.message}
        </p>
      ) : nudges.length === 0 ? (
        <p className="quiet pt-1 text-[13px]">No small change makes it better.</p>
      ) : (
        <ul>
          {nudges.map((nudge) => (
            <li
              key={`${nudge.part} ${nudge.name}`}
              className="rule-t grid grid-cols-[1fr_auto] items-center gap-x-3 py-[6px] text-[13px] leading-[17px] first:border-t-0"
            >
              <span>
                <b>{capital(nudge.name)}</b>
                {partNames.length > 1 && partNames[nudge.part] ? ` in ${partNames[nudge.part]}` : ""}
                <span className="quiet block">{effect(nudge)}</span>
              </span>
              <button
                type="button"
                className="act"
                aria-label={`Apply: ${nudge.name}`}
                disabled={query.before}
                onClick={() => onApply(nudge.document, `Applied: ${nudge.name}. Ctrl Z takes it back.`)}
              >
                Apply
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const MOST_TOLD = 3;

/** What it would do to the measures of the purpose, in words. */
function effect(nudge: Nudge): string {
  const changes = nudge.changes.slice(0, MOST_TOLD).map((each) => `${each.name} ${each.before} to ${each.after}`);
  const cures = nudge.cures.length ? ["answers a caution"] : [];
  return [`${nudge.strokes} of 5`, ...cures, ...changes].join("; ");
}
