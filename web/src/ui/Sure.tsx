import { useState } from "react";

interface Props {
  /** What the key says before anything is asked, and for whoever does not see what it stands beside. */
  word: string;
  label?: string | undefined;
  /** What the answer that does it says, also while it is being done. */
  yes: string;
  doing?: string | undefined;
  busy: boolean;
  onSure: () => void;
}

/** A key for what cannot be taken back: it asks once before it is done. */
export function Sure({ word, label, yes, doing = yes, busy, onSure }: Props) {
  const [asking, setAsking] = useState(false);
  if (!asking) {
    return (
      <button type="button" className="act" aria-label={label} onClick={() => setAsking(true)}>
        {word}
      </button>
    );
  }
  return (
    <>
      <button type="button" className="act" disabled={busy} onClick={onSure}>
        {busy ? doing : yes}
      </button>
      <button type="button" className="act" onClick={() => setAsking(false)}>
        Keep it
      </button>
    </>
  );
}
