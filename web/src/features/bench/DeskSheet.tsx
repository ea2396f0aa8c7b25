import { memo, useDeferredValue } from "react";
import type { Schemas } from "../../api/client";
import type { Draft } from "../../domain/session/draft";
import { Claims } from "./Claims";
import { Nudges } from "./Nudges";
import { Stale } from "./Stale";
import type { Nudged } from "./useNudges";
import { VerdictSheet } from "./VerdictSheet";

interface Props {
  /** What it stands from before, where what is here cannot be worked out. */
  before: string | null;
  evaluation: Schemas["Evaluation"] | undefined;
  /** What is asked about: the session as it lies here. */
  asked: Schemas["NudgeIn"];
  nudges: Nudged;
  names: string[];
  target: Schemas["TargetOut"] | undefined;
  targets: Schemas["TargetOut"][];
  guessing: boolean;
  onPut: (next: Partial<Draft>, words: string) => void;
  onLight: (measure: string | null) => void;
  onWbgt: (wbgt: number | null) => void;
}

/** The sheet beside the desk: the verdict with its cures, the nudges and the claims. The score is drawn before it. */
export function DeskSheet(props: Props) {
  const shown = useDeferredValue(props);
  return <Sheet {...shown} />;
}

const Sheet = memo(function Sheet({
  before,
  evaluation,
  asked,
  nudges,
  names,
  target,
  targets,
  guessing,
  ...on
}: Props) {
  const { document, person_id, wbgt_c } = asked;
  const cureOf = (rule: string) => {
    const nudge = nudges.data?.find((each) => each.cures.includes(rule));
    if (!nudge) return undefined;
    const words = `Applied: ${nudge.name}. Ctrl Z takes it back.`;
    return { name: nudge.name, before: nudges.before, apply: () => on.onPut({ document: nudge.document }, words) };
  };
  return (
    <aside className="border-[var(--rule)] bg-[var(--sheet)] max-[1099px]:border-t min-[1100px]:min-h-dvh min-[1100px]:border-l">
      {evaluation && document.parts.length > 0 ? (
        <Stale before={before}>
          <VerdictSheet
            evaluation={evaluation}
            targets={targets}
            onLight={on.onLight}
            wbgt={wbgt_c ?? null}
            somebody={person_id != null}
            guessing={guessing}
            cureOf={cureOf}
            onWbgt={on.onWbgt}
          >
            <Nudges
              query={nudges}
              asked={asked}
              partNames={names}
              purpose={target?.name ?? asked.target}
              onApply={(next, words) => on.onPut({ document: next }, words)}
            />
            <Claims asked={{ document, person_id }} targets={targets} />
          </VerdictSheet>
        </Stale>
      ) : (
        <div className="p-4">
          <h2>No verdict yet</h2>
          <p className="quiet">
            {target?.name ?? asked.target}: {target?.meaning}.
          </p>
        </div>
      )}
    </aside>
  );
});
