import type { Answer } from "./plan";

const FULL = 1.5;

/** The score of a class, or of a stretch of it, as it is done at the gear: effort is height. */
export function ClassScore({
  answer,
  height,
  from = 0,
  to,
  label,
}: {
  answer: Answer;
  height: number;
  from?: number;
  to?: number;
  label?: string;
}) {
  const end = to ?? answer.total_s;
  const long = Math.max(1, end - from);
  let at = 0;
  const blocks = answer.blocks.map((block) => {
    const start = at;
    at += block.seconds;
    return { ...block, start };
  });
  return (
    <svg
      width="100%"
      height={height}
      viewBox={`0 0 ${long} 100`}
      preserveAspectRatio="none"
      role={label ? "img" : "presentation"}
      aria-label={label}
      aria-hidden={label ? undefined : true}
      className="block"
    >
      {blocks
        .filter((block) => block.start < end && block.start + block.seconds > from && block.demand_frac > 0.3)
        .map((block) => {
          const left = Math.max(block.start, from) - from;
          const right = Math.min(block.start + block.seconds, end) - from;
          const tall = (100 * Math.min(FULL, block.demand_frac)) / FULL;
          const gap = Math.min(0.8, (right - left) * 0.08);
          return (
            <rect
              key={block.start}
              x={left}
              y={100 - tall}
              width={Math.max(0.5, right - left - gap)}
              height={tall}
              fill={
                block.demand_frac >= 1 ? "var(--ink)" : block.demand_frac >= 0.65 ? "var(--ink-2)" : "var(--rule-2)"
              }
            />
          );
        })}
      <line
        x1={0}
        x2={long}
        y1={99.4}
        y2={99.4}
        stroke="var(--ink)"
        strokeWidth={1.2}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
