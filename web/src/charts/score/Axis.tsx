import { clock } from "../../domain/time";
import { SCORE_TOP } from "./geometry";
import type { Lane } from "./lanes";
import { type Fold, xOf } from "./layout";

/** The time axis, with as many marks as there is room for. */
export function Axis({ all, y }: { all: Fold[]; y: number }) {
  const marks: { x: number; at: number }[] = [];
  for (const fold of all) {
    const perMinute = (fold.width / fold.total_s) * 60;
    const every = [15, 30, 60, 120, 300, 600, 1200].find((s) => (perMinute * s) / 60 >= 46) ?? 3600;
    marks.push({ x: fold.x, at: fold.start_s });
    for (let at = Math.ceil((fold.start_s + 1) / every) * every; at < fold.start_s + fold.total_s; at += every) {
      const x = xOf(all, at);
      if (x - fold.x >= 40) marks.push({ x, at });
    }
  }
  let free = -1;
  return (
    <>
      {marks.map((mark) => {
        const shown = mark.x >= free;
        if (shown) free = mark.x + 40;
        return (
          <g key={mark.at}>
            <line x1={mark.x} x2={mark.x} y1={y} y2={y + 4} stroke="var(--ink-2)" />
            {shown && (
              <text x={mark.x} y={y + 18} className="fill-[var(--ink-2)] text-[12px]">
                {clock(mark.at)}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

interface CursorProps {
  at: number;
  x: number;
  lanes: Lane[];
  seconds: number[];
  axis: number;
  top: (lane: number) => number;
  height: number;
  room: number;
}

/** One line through all staves, with what each reads there. */
export function Cursor({ at, x, lanes, seconds, axis, top, height, room }: CursorProps) {
  const found = seconds.findIndex((each) => each >= at);
  const index = found < 0 ? seconds.length - 1 : found;
  const right = x + 60 < room;
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={SCORE_TOP - 6} y2={axis} stroke="var(--ink)" strokeWidth={1.4} />
      <path d={`M${x - 5} ${SCORE_TOP - 10} h10 l-5 7z`} fill="var(--ink)" />
      {lanes.map((lane, number) => (
        <Tag
          key={lane.id}
          x={right ? x + 4 : x - 50}
          y={top(number) + height / 2 - 9}
          text={lane.show(lane.values[index] ?? 0)}
        />
      ))}
      <Tag x={Math.min(room - 46, Math.max(0, x - 23))} y={axis + 5} text={clock(at)} />
    </g>
  );
}

function Tag({ x, y, text }: { x: number; y: number; text: string }) {
  return (
    <>
      <rect x={x} y={y} width={46} height={18} rx={2} fill="var(--ink)" />
      <text x={x + 23} y={y + 13.5} textAnchor="middle" className="fill-[var(--sheet)] text-[13px] font-semibold">
        {text}
      </text>
    </>
  );
}
