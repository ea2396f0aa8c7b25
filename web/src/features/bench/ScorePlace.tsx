import type { Refused, Schemas } from "../../api/client";
import { Score } from "../../charts/score/Score";

interface Props {
  evaluation: Schemas["Evaluation"] | undefined;
  names: string[];
  open: number | null;
  unfolded: ReadonlySet<number>;
  lit: ReadonlySet<number>;
  refused: Refused | null;
  onOpen: (part: number) => void;
  onRetry: () => void;
  wordOf: (tempo: string) => string;
}

/** The score in its place: drawn, being worked out, or stopped with its reason. */
export function ScorePlace({ evaluation, refused, onRetry, ...score }: Props) {
  return (
    <div className="mt-3 min-h-[366px]">
      {refused ? (
        <div className="border border-[var(--rule-2)] p-4">
          <span className="seal">Stopped</span> <b>The verdict could not be worked out.</b>
          <p className="pt-1">{refused.message} The session stays here and on this device.</p>
          <button type="button" className="act mt-3" onClick={onRetry}>
            Try again
          </button>
        </div>
      ) : evaluation?.parts.length ? (
        <Score evaluation={evaluation} {...score} />
      ) : (
        <p className="quiet min-h-[415px] pt-10" role="status">
          Working it out …
        </p>
      )}
    </div>
  );
}
