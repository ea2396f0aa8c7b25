import { useId, useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { Patterns } from "../../charts/score/Blocks";
import { PartName } from "../../charts/score/Heads";
import { FULL_HEIGHT } from "../../charts/score/ink";
import { type Fold, folds, xOf } from "../../charts/score/layout";
import { clock } from "../../domain/time";
import { useWidth } from "../../ui/useWidth";
import { Bars } from "./Bars";
import { partsOf, trace } from "./drawing";

type Piece = Schemas["TimelineInterval"];
type Done = Schemas["Done"];

interface Props {
  timeline: Piece[];
  names: string[];
  /** Null where the server has not read it yet. */
  done: Done | null;
  /** Session time [s] and heart rate [bpm]. */
  heart: [number, number][];
  label: string;
}

const HEAD = 26;
const STAVE = 132;
const GROUND = HEAD + STAVE;
const BARS = 76;

/** What was done over what was planned: the plan is a wash, the heart a line over it, rounds stand under it. */
export function DoneScore({ timeline, names, done, heart, label }: Props) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const parts = useMemo(() => partsOf(timeline), [timeline]);
  const [chosen, setOpen] = useState<number | null>(null);
  const open = chosen ?? hardest(parts.length, done);
  const patterns = useId();
  const wide = width >= 640;
  const gutter = wide ? 104 : 0;
  const all = useMemo(
    () => folds(parts, new Set(parts.length > 1 ? [open] : []), Math.max(0, width - gutter)),
    [parts, open, width, gutter],
  );
  const counted = done?.rounds.some((round) => round.strikes !== null) ?? false;
  const barsTop = GROUND + (wide ? 26 : 40);
  const rowTop = counted ? barsTop + BARS + 26 : GROUND + (wide ? 22 : 34);
  const rows = heart.length > 0 ? 2 : 1;
  const height = rowTop + 24 * rows + 6;
  const right = width - gutter;
  return (
    <div ref={frame} className="w-full">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={label} className="score block overflow-visible">
          <Patterns id={patterns} />
          <g transform={`translate(${gutter} 0)`}>
            {all.map((fold, part) => (
              // biome-ignore lint/a11y/noStaticElementInteractions: it only widens a part; all figures stand in the table
              <g key={fold.start_s} className="cursor-pointer" onClick={() => setOpen(part)}>
                {part > 0 && <line x1={fold.x - 4} x2={fold.x - 4} y1={0} y2={height} stroke="var(--rule-2)" />}
                <rect x={fold.x} y={0} width={fold.width} height={height} fill="transparent" />
                <PartName fold={fold} name={names[part] ?? ""} />
                <line x1={fold.x} x2={fold.x + fold.width} y1={GROUND} y2={GROUND} stroke="var(--ink)" />
              </g>
            ))}
            <Wash all={all} timeline={timeline} patterns={patterns} />
            <HeartLine all={all} heart={heart} right={right} wide={wide} />
            {counted && done && <Bars all={all} rounds={done.rounds} top={barsTop} height={BARS} wide={wide} />}
            {done && <Rounds all={all} done={done} top={rowTop} right={right} wide={wide} hearts={heart.length > 0} />}
          </g>
          {wide && <Labels counted={counted} barsTop={barsTop} rowTop={rowTop} hearts={heart.length > 0} />}
        </svg>
      )}
    </div>
  );
}

/** The part with most rounds is open as long as none was chosen. */
function hardest(parts: number, done: Done | null): number {
  const rounds = Array.from(
    { length: parts },
    (_, part) => done?.rounds.filter((one) => one.part === part).length ?? 0,
  );
  return rounds.indexOf(Math.max(...rounds, 0));
}

function Labels({
  counted,
  barsTop,
  rowTop,
  hearts,
}: Record<"barsTop" | "rowTop", number> & Record<"counted" | "hearts", boolean>) {
  return (
    <>
      <text x={0} y={HEAD + 12} className="fill-[var(--ink)] text-[13px] font-semibold">
        {hearts ? "Heart rate" : "Plan"}
      </text>
      {hearts && (
        <text x={0} y={HEAD + 28} className="fill-[var(--ink-2)] text-[12px]">
          over the plan
        </text>
      )}
      {counted && (
        <>
          <text x={0} y={barsTop + 12} className="fill-[var(--ink)] text-[13px] font-semibold">
            Strikes
          </text>
          <text x={0} y={barsTop + 28} className="fill-[var(--ink-2)] text-[12px]">
            counted; line:
          </text>
          <text x={0} y={barsTop + 43} className="fill-[var(--ink-2)] text-[12px]">
            expected
          </text>
        </>
      )}
      <text x={0} y={rowTop + 16} className="fill-[var(--ink)] text-[13px] font-semibold">
        Done
      </text>
      {hearts && (
        <text x={0} y={rowTop + 40} className="fill-[var(--ink)] text-[13px] font-semibold">
          Peak heart
        </text>
      )}
    </>
  );
}

function Wash({ all, timeline, patterns }: { all: Fold[]; timeline: Piece[]; patterns: string }) {
  return (
    <>
      {timeline
        .filter((piece) => piece.kind !== "rest")
        .map((piece) => {
          const left = xOf(all, piece.start_s, piece.part);
          const width = Math.max(0.6, xOf(all, piece.start_s + piece.seconds, piece.part) - left - 0.8);
          const tall = (Math.min(piece.demand_frac, FULL_HEIGHT) / FULL_HEIGHT) * (STAVE - 8);
          const pattern = piece.hatch;
          return (
            <g key={piece.start_s} pointerEvents="none">
              <rect
                x={left}
                y={GROUND - tall}
                width={width}
                height={tall}
                fill={pattern ? `url(#${patterns}-${pattern})` : "var(--ink)"}
                opacity={pattern ? 0.45 : 0.16 + 0.16 * Math.min(1, piece.demand_frac / 1.7)}
              />
              <line x1={left} x2={left + width} y1={GROUND - tall} y2={GROUND - tall} stroke="var(--ink)" />
            </g>
          );
        })}
    </>
  );
}

/** Readings further apart than this are not one line: the strap was off. */
const APART_S = 4;

function HeartLine({
  all,
  heart,
  right,
  wide,
}: {
  all: Fold[];
  heart: [number, number][];
  right: number;
  wide: boolean;
}) {
  if (heart.length < 2) return null;
  const rates = heart.map(([, bpm]) => bpm);
  const low = Math.min(90, Math.floor(Math.min(...rates) / 10) * 10 - 5);
  const high = Math.max(160, Math.ceil(Math.max(...rates) / 10) * 10);
  const y = (bpm: number) => GROUND - ((bpm - low) / (high - low)) * (STAVE - 8);
  const lines = trace(heart, all, APART_S);
  return (
    <g pointerEvents="none">
      {[100, 130, 160, 190]
        .filter((bpm) => bpm > low && bpm <= high)
        .map((bpm) => (
          <g key={bpm}>
            <line x1={0} x2={right} y1={y(bpm)} y2={y(bpm)} stroke="var(--rule)" />
            {wide && (
              <text x={-8} y={y(bpm) + 4} textAnchor="end" className="fill-[var(--ink-2)] text-[12px]">
                {bpm}
              </text>
            )}
          </g>
        ))}
      {lines.map((line) => {
        const points = line.points.map(({ x, bpm }) => `${x.toFixed(1)},${y(bpm).toFixed(1)}`).join(" ");
        return (
          <g key={`${line.part} ${line.from_s}`}>
            {!line.gap && <polyline points={points} fill="none" stroke="var(--sheet)" strokeWidth={5} />}
            <polyline
              points={points}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={1.8}
              strokeLinejoin="round"
              strokeDasharray={line.gap ? "1.5 4" : undefined}
            />
          </g>
        );
      })}
    </g>
  );
}

interface RoundsProps {
  all: Fold[];
  done: Done;
  top: number;
  right: number;
  wide: boolean;
  hearts: boolean;
}

function Rounds({ all, done, top, right, wide, hearts }: RoundsProps) {
  return (
    <g pointerEvents="none">
      {[0, 24, ...(hearts ? [48] : [])].map((down) => (
        <line key={down} x1={0} x2={right} y1={top + down} y2={top + down} stroke="var(--rule)" />
      ))}
      {!wide && (
        <text x={0} y={top - 5} className="fill-[var(--ink-2)] text-[12px]">
          Done{hearts ? ", peak heart rate" : ""}
        </text>
      )}
      {done.rounds.map((round) => {
        const left = xOf(all, round.start_s, round.part);
        const width = xOf(all, round.end_s, round.part) - left;
        const middle = left + width / 2;
        return (
          <g key={round.start_s}>
            {round.done ? (
              <path d={`M${middle - 5} ${top + 12}l4 4 7 -8`} fill="none" stroke="var(--moss)" strokeWidth={2.2} />
            ) : (
              width > 14 && (
                <text
                  x={middle}
                  y={top + 16}
                  textAnchor="middle"
                  className="fill-[var(--ink)] text-[12px] font-semibold"
                >
                  {round.done_s > 0 ? clock(round.done_s) : "–"}
                </text>
              )
            )}
            {round.peak_bpm !== null && width > 16 && (
              <text x={middle} y={top + 40} textAnchor="middle" className="fill-[var(--ink)] text-[12px]">
                {round.peak_bpm}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
