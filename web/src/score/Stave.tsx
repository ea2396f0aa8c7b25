import type { Lane } from "./lanes";
import type { Fold } from "./layout";

interface StaveProps {
  lane: Lane;
  all: Fold[];
  seconds: number[];
  top: number;
  height: number;
  wide: boolean;
}

/** One store, or the heart, under the score. */
export function Stave({ lane, all, seconds, top, height, wide }: StaveProps) {
  const y = (value: number) =>
    top + height - Math.min(1, Math.max(0, (value - lane.low) / (lane.high - lane.low))) * (height - 2);
  const lines = all.map((fold) => {
    const end = fold.start_s + fold.total_s;
    const points: string[] = [];
    for (let index = 0; index < seconds.length; index++) {
      const at = seconds[index] ?? 0;
      if (at < fold.start_s - 0.01 || at > end + 0.01) continue;
      const x = fold.x + ((at - fold.start_s) / fold.total_s) * fold.width;
      points.push(`${x.toFixed(1)},${y(lane.values[index] ?? 0).toFixed(1)}`);
    }
    return { fold, points };
  });
  const last = all[all.length - 1];
  const right = last ? last.x + last.width : 0;
  return (
    <g>
      <Mark shape={lane.shape} hue={lane.hue} x={wide ? -92 : 0} y={wide ? top + 10 : top - 11} />
      <text x={wide ? -76 : 16} y={wide ? top + 15 : top - 6} className="fill-[var(--ink)] text-[13px] font-semibold">
        {lane.name}
      </text>
      <text x={wide ? -76 : 66} y={wide ? top + 30 : top - 6} className="fill-[var(--ink-2)] text-[12px]">
        {lane.unit}
      </text>
      {lane.reference !== undefined && (
        <>
          <line
            x1={0}
            x2={right}
            y1={y(lane.reference)}
            y2={y(lane.reference)}
            stroke="var(--ink-2)"
            strokeDasharray="1.5 3.5"
          />
          {wide && (
            <text x={-6} y={y(lane.reference) + 4} textAnchor="end" className="fill-[var(--ink-2)] text-[11px]">
              {Math.round(lane.reference * 100)}
            </text>
          )}
        </>
      )}
      {lines.map(({ fold, points }) =>
        points.length > 1 ? (
          <g key={fold.start_s}>
            {lane.shape !== "beat" && (
              <polygon
                points={`${points[0]?.split(",")[0]},${top + height} ${points.join(" ")} ${points[points.length - 1]?.split(",")[0]},${top + height}`}
                fill={lane.hue}
                fillOpacity={0.17}
              />
            )}
            <polyline
              points={points.join(" ")}
              fill="none"
              stroke={lane.hue}
              strokeWidth={1.6}
              strokeLinejoin="round"
            />
            <line x1={fold.x} x2={fold.x + fold.width} y1={top + height} y2={top + height} stroke="var(--rule-2)" />
          </g>
        ) : null,
      )}
    </g>
  );
}

function Mark({ shape, hue, x, y }: { shape: Lane["shape"]; hue: string; x: number; y: number }) {
  if (shape === "triangle") return <path d={`M${x} ${y + 5} l5 -10 l5 10z`} fill={hue} />;
  if (shape === "diamond") return <path d={`M${x} ${y} l5 -5.500 l5 5.500 l-5 5.500z`} fill={hue} />;
  if (shape === "disc") return <circle cx={x + 5} cy={y} r={4.6} fill={hue} />;
  return <path d={`M${x - 1} ${y} h3 l2 -5 l3 10 l2 -5 h3`} fill="none" stroke={hue} strokeWidth={1.5} />;
}
