import { useEffect, useState } from "react";

const ARMED_MS = 4000;

interface Props {
  word: string;
  /** What the second press says. */
  sure: string;
  onDo: () => void;
  className?: string;
}

/** What cannot be undone is done by a second press on the same key, within a few seconds. */
export function Twice({ word, sure, onDo, className = "act" }: Props) {
  const [armed, setArmed] = useState(false);
  useEffect(() => {
    if (!armed) return;
    const timer = setTimeout(() => setArmed(false), ARMED_MS);
    return () => clearTimeout(timer);
  }, [armed]);
  return (
    <button
      type="button"
      className={className}
      onClick={() => {
        setArmed(!armed);
        if (armed) onDo();
      }}
    >
      {armed ? sure : word}
    </button>
  );
}
