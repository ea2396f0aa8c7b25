interface Props {
  /** Whom and what the session is saved for. */
  savedFor: string;
  onKeep: () => void;
  onBack: () => void;
}

/** Another person or purpose on a saved session is only tried: the session stays as it is saved until it is kept. */
export function Looking({ savedFor, onKeep, onBack }: Props) {
  return (
    <p
      role="status"
      className="no-print mt-2 flex flex-wrap items-center gap-x-3 gap-y-2 border-y border-[var(--rule-2)] py-2"
    >
      <span className="seal light">A look</span>
      <span>Saved, and run, for {savedFor}.</span>
      <button type="button" className="act" onClick={onKeep}>
        Keep it
      </button>
      <button type="button" className="link min-h-[24px] max-[899px]:min-h-[44px]" onClick={onBack}>
        Back to what is saved
      </button>
    </p>
  );
}
