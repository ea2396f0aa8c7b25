/** What the bench has to say: a lost connection, a refusal, a reason. */
export function Said({ away, text, onClose }: { away: boolean; text: string | null; onClose: () => void }) {
  return (
    <div role="status" aria-live="polite">
      {away && (
        <p className="mt-2 flex gap-3 border-y border-[var(--rule-2)] py-2">
          <span className="seal self-start">Off line</span>
          <span>No connection. Your edit is kept on this device and is sent when the connection is back.</span>
        </p>
      )}
      {text && (
        <p className="mt-2 flex items-start justify-between gap-3 border-y border-[var(--rule)] py-2">
          <span>{text}</span>
          <button type="button" className="link min-h-[24px]" onClick={onClose}>
            Close
          </button>
        </p>
      )}
    </div>
  );
}
