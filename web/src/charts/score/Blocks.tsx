import type { Schemas } from "../../api/client";
import { GROUND } from "./geometry";
import { tone } from "./ink";
import { type Fold, xOf } from "./layout";

type Evaluation = Schemas["Evaluation"];

/** The dots of skill work and the slant of active recovery. */
export function Patterns({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={`${id}-dots`} width={4.6} height={4.6} patternUnits="userSpaceOnUse">
        <circle cx={1.2} cy={1.2} r={0.9} fill="var(--ink)" />
        <circle cx={3.5} cy={3.5} r={0.9} fill="var(--ink)" />
      </pattern>
      <pattern id={`${id}-slant`} width={5} height={5} patternUnits="userSpaceOnUse">
        <path d="M-1 6 L6 -1 M-1 1 L1 -1 M4 6 L6 4" stroke="var(--ink)" strokeWidth={0.8} />
      </pattern>
    </defs>
  );
}

interface BlockProps {
  all: Fold[];
  evaluation: Evaluation;
  staff: (demand: number) => number;
  patterns: string;
  lit: ReadonlySet<number>;
}

/** The intervals: work in ink, skill in dots, recovery slanted, rest as bare paper. */
export function Blocks({ all, evaluation, staff, patterns, lit }: BlockProps) {
  return (
    <>
      {evaluation.timeline.map((interval, index) => {
        const left = xOf(all, interval.start_s, interval.part);
        const right = xOf(all, interval.start_s + interval.seconds, interval.part);
        const width = Math.max(0.6, right - left - (right - left > 3 ? 0.8 : 0));
        const top = staff(interval.demand_frac);
        const marked = lit.has(index);
        if (interval.kind === "rest") {
          return marked ? (
            <rect key={interval.start_s} x={left} y={GROUND + 3} width={width} height={4} fill="var(--vermilion)" />
          ) : null;
        }
        const hatch = interval.hatch;
        const fill = hatch ? `url(#${patterns}-${hatch})` : tone(interval.demand_frac);
        const { turn, of: count } = interval.rounds[interval.rounds.length - 1] ?? { turn: 1, of: 1 };
        const numbered = count > 1 && interval.kind === "work" && isFirstOfTurn(evaluation.timeline, index);
        return (
          <g key={interval.start_s}>
            <rect x={left} y={top} width={width} height={GROUND - top} fill={fill} />
            {interval.open_ended && <OpenEdge right={left + width} top={top} />}
            <line x1={left} x2={left + width} y1={top} y2={top} stroke="var(--ink)" strokeWidth={1.6} />
            {marked && <rect x={left} y={GROUND + 3} width={width} height={4} fill="var(--vermilion)" />}
            {numbered && right - left > 8 && (
              <text
                x={(left + right) / 2}
                y={GROUND + 20}
                textAnchor="middle"
                className="fill-[var(--ink-2)] text-[12px]"
              >
                {turn}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

const TOOTH = 5;

/** The end of open-ended work: torn, as nobody knows yet where it is. */
function OpenEdge({ right, top }: { right: number; top: number }) {
  const teeth = Math.max(1, Math.round((GROUND - top) / (2 * TOOTH)));
  const step = (GROUND - top) / (2 * teeth);
  const torn = Array.from({ length: teeth }, () => `l${-TOOTH} ${step}l${TOOTH} ${step}`).join("");
  return <path data-open d={`M${right + 1} ${top - 1}V${top}H${right}${torn}h1z`} fill="var(--paper)" />;
}

/** The number of the round under the cursor, bold over its own. */
export function NumberInHand({ all, interval }: { all: Fold[]; interval: Schemas["TimelineInterval"] }) {
  const { turn, of: count } = interval.rounds[interval.rounds.length - 1] ?? { turn: 1, of: 1 };
  const left = xOf(all, interval.start_s, interval.part);
  const right = xOf(all, interval.start_s + interval.seconds, interval.part);
  if (count < 2 || interval.kind !== "work" || right - left <= 8) return null;
  return (
    <text
      x={(left + right) / 2}
      y={GROUND + 20}
      textAnchor="middle"
      className="fill-[var(--ink)] stroke-[var(--ink)] text-[12px] font-bold [stroke-width:0.6]"
    >
      {turn}
    </text>
  );
}

function isFirstOfTurn(timeline: Evaluation["timeline"], index: number): boolean {
  const before = timeline[index - 1];
  const now = timeline[index];
  if (!before || !now || before.part !== now.part || before.rounds.length !== now.rounds.length) return true;
  return before.kind !== "work" || JSON.stringify(before.rounds) !== JSON.stringify(now.rounds);
}
