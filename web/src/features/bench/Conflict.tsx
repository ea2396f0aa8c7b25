import { when } from "../../domain/time";

interface Props {
  savedAt: string;
  said: string | null;
  busy: boolean;
  onMerge: () => void;
  onCopy: () => void;
  onTheirs: () => void;
}

/** The session was saved elsewhere while it was edited here: nothing is lost, whatever is chosen. */
export function Conflict({ savedAt, said, busy, onMerge, onCopy, onTheirs }: Props) {
  return (
    <div role="alert" className="no-print mt-2 border-y border-[var(--ink)] py-2">
      <p>
        <span className="seal">Closed</span> This session was saved elsewhere since you opened it, {when(savedAt)}.
        Yours is kept here and not saved yet.
      </p>
      {said && <p className="pt-1">{said}</p>}
      <p className="flex flex-wrap gap-2 pt-2">
        <button type="button" className="act main" disabled={busy} onClick={onMerge}>
          {busy ? "Merging …" : "Merge both"}
        </button>
        <button type="button" className="act" disabled={busy} onClick={onCopy}>
          Save mine as a copy
        </button>
        <button type="button" className="act" disabled={busy} onClick={onTheirs}>
          Take theirs
        </button>
      </p>
    </div>
  );
}
