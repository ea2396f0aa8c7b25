const HUES = { sprint: "var(--sprint)", lactic: "var(--lactic)", aerobic: "var(--aerobic)", heart: "var(--ink)" };

/** The shape and hue of a store; the heart has none, and a beat of its own. */
export function Store({ store }: { store: keyof typeof HUES }) {
  const hue = HUES[store];
  return (
    <svg width={12} height={12} aria-hidden="true" className="inline-block flex-none">
      {store === "sprint" && <path d="M6 1 L11.5 11 L.5 11 Z" fill={hue} />}
      {store === "lactic" && <path d="M6 0 L12 6 L6 12 L0 6 Z" fill={hue} />}
      {store === "aerobic" && <circle cx={6} cy={6} r={5.5} fill={hue} />}
      {store === "heart" && (
        <path d="M0 7 H3 L4.5 3 L6.5 11 L8.5 5 L9.5 7 H12" fill="none" stroke={hue} strokeWidth={1.5} />
      )}
    </svg>
  );
}
