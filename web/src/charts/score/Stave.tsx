import type { Lane } from "./lanes";
import { type Fold, xOf } from "./layout";

interface StaveProps {
  lane: Lane;
  all: Fold[];
  seconds: number[];
  /** When the band was sampled. */
  bandSeconds: number[];
  top: number;
  height: number;
  wide: boolean;
}

type Line = { x: number; y: number }[];

/** To a tenth of a pixel. */
const tenth = (at: number): number => Math.round(10 * at) / 10;
const points = (line: Line): string => line.map(({ x, y }) => `${tenth(x)},${tenth(y)}`).join(" ");

/** The samples of a course that lie in a part, as places. */
function course(fold: Fold, seconds: number[], values: number[], y: (value: number) => number): Line {
  const end = fold.start_s + fold.total_s;
  const line: Line = [];
  for (let index = 0; index < seconds.length; index++) {
    const at = seconds[index] ?? 0;
    if (at < fold.start_s - 0.01 || at > end + 0.01) continue;
    line.push({ x: fold.x + ((at - fold.start_s) / fold.total_s) * fold.width, y: y(values[index] ?? 0) });
  }
  return line;
}

/** One store, or the heart, under the score: its course, how sure that is, and where it is asked to lie. */
export function Stave({ lane, all, seconds, bandSeconds, top, height, wide }: StaveProps) {
  const y = (value: number) =>
    top + height - Math.min(1, Math.max(0, (value - lane.low) / (lane.high - lane.low))) * (height - 2);
  const last = all[all.length - 1];
  const right = last ? last.x + last.width : 0;
  const ground = top + height;
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
      <Wanted lane={lane} all={all} y={y} wide={wide} />
      {all.map((fold) => {
        const line = course(fold, seconds, lane.values, y);
        if (line.length < 2) return null;
        const high = lane.band ? course(fold, bandSeconds, lane.band.high, y) : [];
        const low = lane.band ? course(fold, bandSeconds, lane.band.low, y) : [];
        const drawn = points(line);
        const [from, to] = [tenth(line[0]?.x ?? 0), tenth(line[line.length - 1]?.x ?? 0)];
        return (
          <g key={fold.start_s}>
            {lane.shape !== "beat" && (
              <polygon points={`${from},${ground} ${drawn} ${to},${ground}`} fill={lane.hue} fillOpacity={0.14} />
            )}
            {high.length > 1 && (
              <polygon
                data-band={lane.id}
                points={`${points(high)} ${points(low.toReversed())}`}
                fill={lane.hue}
                fillOpacity={0.2}
              />
            )}
            <polyline points={drawn} fill="none" stroke={lane.hue} strokeWidth={1.6} strokeLinejoin="round" />
            <line x1={fold.x} x2={fold.x + fold.width} y1={ground} y2={ground} stroke="var(--rule-2)" />
          </g>
        );
      })}
    </g>
  );
}

/** Where the values are asked to lie: a bar between two posts, as long as it is asked for. */
function Wanted({ lane, all, y, wide }: { lane: Lane; all: Fold[]; y: (value: number) => number; wide: boolean }) {
  const [first] = lane.wanted;
  return (
    <>
      {lane.wanted.flatMap((wanted) =>
        all.map((fold, part) => {
          const from = Math.max(wanted.start_s, fold.start_s);
          const to = Math.min(wanted.end_s, fold.start_s + fold.total_s);
          if (from >= to) return null;
          const [left, right] = [xOf(all, from, part), xOf(all, to, part)];
          const [top, bottom] = [y(wanted.high), y(wanted.low)];
          return (
            <g key={`${wanted.start_s} ${fold.start_s}`} data-wanted={lane.id}>
              <rect x={left} y={top} width={right - left} height={bottom - top} fill="var(--moss)" fillOpacity={0.16} />
              {[top, bottom].map((at) => (
                <line key={at} x1={left} x2={right} y1={at} y2={at} stroke="var(--moss)" strokeDasharray="4 2" />
              ))}
            </g>
          );
        }),
      )}
      {first && wide && (
        <text
          x={4}
          y={y(first.high) - 3}
          className="fill-[var(--moss)] stroke-[var(--paper)] text-[11px] font-semibold [paint-order:stroke] [stroke-width:3]"
        >
          {Math.round(first.low)}–{Math.round(first.high)}
        </text>
      )}
    </>
  );
}

function Mark({ shape, hue, x, y }: { shape: Lane["shape"]; hue: string; x: number; y: number }) {
  if (shape === "triangle") return <path d={`M${x} ${y + 5} l5 -10 l5 10z`} fill={hue} />;
  if (shape === "diamond") return <path d={`M${x} ${y} l5 -5.500 l5 5.500 l-5 5.500z`} fill={hue} />;
  if (shape === "disc") return <circle cx={x + 5} cy={y} r={4.6} fill={hue} />;
  return <path d={`M${x - 1} ${y} h3 l2 -5 l3 10 l2 -5 h3`} fill="none" stroke={hue} strokeWidth={1.5} />;
}
