import { faultBeside } from "./Field";

interface Props {
  word: string;
  busy: boolean;
  /** Said while it is on its way. */
  busyWord: string;
  /** Nothing can be sent as it is. */
  off?: boolean;
  error: Error | null;
  /** Those that say what is wrong with them themselves. */
  fields: readonly string[];
  onClose: () => void;
}

/** The end of a form on a sheet: what was refused beside its fields, the act, and the way out. */
export function FormEnd({ word, busy, busyWord, off = false, error, fields, onClose }: Props) {
  const others = faultBeside(error, fields);
  return (
    <>
      {others && (
        <p role="alert">
          <span className="seal">Not done</span> {others}
        </p>
      )}
      <p className="flex gap-2">
        <button type="submit" className="act main" disabled={busy || off}>
          {busy ? busyWord : word}
        </button>
        <button type="button" className="act" onClick={onClose}>
          Cancel
        </button>
      </p>
    </>
  );
}
