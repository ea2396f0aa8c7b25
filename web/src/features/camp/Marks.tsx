import type { Mark } from "./plan";

const HUE = { sprint: "var(--sprint)", lactic: "var(--lactic)", aerobic: "var(--aerobic)" };
export const MARK_WORDS: Record<Exclude<Mark, null>, string> = {
  lactic: "lactic",
  sprint: "sprint",
  aerobic: "aerobic",
  bout: "bout rounds",
  test: "test",
};

/** The shape of the system a session is for: the store's own, a ring of ropes for the bout, a bar for the test. */
export function MarkShape({ mark, size = 12 }: { mark: Mark; size?: number }) {
  if (!mark) return null;
  return (
    <svg width={size} height={size} viewBox="0 0 12 12" aria-hidden="true" className="inline-block flex-none">
      {mark === "sprint" && <path d="M6 1 L11.5 11 L.5 11 Z" fill={HUE.sprint} />}
      {mark === "lactic" && <path d="M6 0 L12 6 L6 12 L0 6 Z" fill={HUE.lactic} />}
      {mark === "aerobic" && <circle cx={6} cy={6} r={5.5} fill={HUE.aerobic} />}
      {mark === "bout" && <rect x={1.5} y={1.5} width={9} height={9} fill="none" stroke="var(--ink)" strokeWidth={2} />}
      {mark === "test" && <path d="M1 6 H11 M6 1 V11" stroke="var(--ink)" strokeWidth={2.4} />}
    </svg>
  );
}
