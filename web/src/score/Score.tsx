import { useCallback, useEffect, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { clock } from "../parts/time";
import { describe } from "./describe";
import { FULL_HEIGHT, STAFF, tone } from "./ink";
import { type Fold, folds, timeAt, xOf } from "./layout";

type Evaluation = Schemas["Evaluation"];

interface Lane {
  id: string;
  name: string;
  unit: string;
  hue: string;
  shape: "triangle" | "diamond" | "disc" | "beat";
  values: number[];
  low: number;
  high: number;
  reference?: number;
  show: (value: number) => string;
}

interface Props {
  evaluation: Evaluation;
  names: string[];
  open: number | null;
  lit: ReadonlySet<number>;
  onOpen: (part: number) => void;
}

const SCORE_TOP = 44;
const SCORE_HEIGHT = 118;
const GROUND = SCORE_TOP + SCORE_HEIGHT;

function lanesOf(reading: Evaluation["reading"]): Lane[] {
  if (!reading) return [];
  const percent = (value: number) => `${Math.round(100 * value)} %`;
  const { traces } = reading;
  const lanes: Lane[] = [
    {
      id: "sprint",
      name: "Sprint",
      unit: "store, %",
      hue: "var(--sprint)",
      shape: "triangle",
      values: traces.sprint_left,
      low: 0,
      high: 1,
      show: percent,
    },
    {
      id: "lactic",
      name: "Lactic",
      unit: "store, %",
      hue: "var(--lactic)",
      shape: "diamond",
      values: traces.lactic_left,
      low: 0,
      high: 1,
      reference: 0.5,
      show: percent,
    },
    {
      id: "aerobic",
      name: "Aerobic",
      unit: "% of max",
      hue: "var(--aerobic)",
      shape: "disc",
      values: traces.uptake_frac,
      low: 0,
      high: 1,
      reference: 0.9,
      show: percent,
    },
  ];
  if (traces.heart_rate_bpm) {
    lanes.push({
      id: "heart",
      name: "Heart",
      unit: "rate, bpm",
      hue: "var(--ink)",
      shape: "beat",
      values: traces.heart_rate_bpm,
      low: reading.hr_rest_bpm - 10,
      high: reading.hr_max_bpm,
      show: (value) => String(Math.round(value)),
    });
  }
  return lanes;
}

/** The session as a score: effort is height and ink, the stores beneath on the same time axis, one cursor for all. */
export function Score({ evaluation, names, open, lit, onOpen }: Props) {
  const patterns = useId();
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [cursor, setCursor] = useState<number | null>(null);
  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setWidth(element.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const wide = width >= 640;
  const gutter = wide ? 92 : 0;
  const laneHeight = wide ? 38 : 30;
  const laneStep = wide ? 46 : 48;
  const all = useMemo(
    () => folds(evaluation.parts, open, Math.max(0, width - gutter)),
    [evaluation.parts, open, width, gutter],
  );
  const lanes = useMemo(() => lanesOf(evaluation.reading), [evaluation.reading]);
  const seconds = evaluation.reading?.traces.seconds ?? [];
  const axis = GROUND + 26 + lanes.length * laneStep;
  const height = axis + 26;
  const staff = (demand: number) => GROUND - (Math.min(demand, FULL_HEIGHT) / FULL_HEIGHT) * SCORE_HEIGHT;

  const move = useCallback(
    (by: number) => setCursor((at) => Math.min(evaluation.total_s, Math.max(0, (at ?? 0) + by))),
    [evaluation.total_s],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.target as HTMLElement).closest("input, textarea, select")) return;
      if (event.key === ",") move(-5);
      if (event.key === ".") move(5);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [move]);

  const at = cursor === null ? null : Math.min(cursor, evaluation.total_s);
  const under = at === null ? undefined : evaluation.timeline.findLast((interval) => interval.start_s <= at);

  return (
    <div ref={frame} className="relative w-full">
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={describe(evaluation, names)}
          className="block touch-pan-y select-none"
          onPointerMove={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            setCursor(timeAt(all, event.clientX - box.left - gutter));
          }}
          onPointerLeave={() => setCursor(null)}
        >
          <Patterns id={patterns} />
          <g transform={`translate(${gutter} 0)`}>
            {open !== null && all.length > 1 && all[open] && (
              <rect x={all[open].x} y={0} width={all[open].width} height={axis} fill="var(--sheet)" />
            )}
            {STAFF.map((line) => (
              <g key={line.word}>
                <line x1={0} x2={width - gutter} y1={staff(line.at)} y2={staff(line.at)} stroke="var(--rule)" />
                {wide && (
                  <text x={-10} y={staff(line.at) + 4} textAnchor="end" className="fill-[var(--ink-2)] text-[12px]">
                    {line.word}
                  </text>
                )}
              </g>
            ))}
            <Heads all={all} names={names} evaluation={evaluation} open={open} onOpen={onOpen} axis={axis} />
            <Blocks all={all} evaluation={evaluation} staff={staff} patterns={patterns} lit={lit} under={under} />
            {lanes.map((lane, index) => (
              <Stave
                key={lane.id}
                lane={lane}
                all={all}
                seconds={seconds}
                top={GROUND + 26 + index * laneStep + (laneStep - laneHeight)}
                height={laneHeight}
                wide={wide}
              />
            ))}
            <Axis all={all} y={axis} />
            {at !== null && (
              <Cursor
                at={at}
                x={xOf(all, at)}
                lanes={lanes}
                seconds={seconds}
                axis={axis}
                top={(i) => GROUND + 26 + i * laneStep + (laneStep - laneHeight)}
                height={laneHeight}
                room={width - gutter}
              />
            )}
          </g>
        </svg>
      )}
    </div>
  );
}

function Patterns({ id }: { id: string }) {
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

interface HeadProps {
  all: Fold[];
  names: string[];
  evaluation: Evaluation;
  open: number | null;
  axis: number;
  onOpen: (part: number) => void;
}

function Heads({ all, names, evaluation, open, axis, onOpen }: HeadProps) {
  return (
    <>
      {all.map((fold, index) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: the outline's rows do the same by keyboard
        <g key={fold.start_s} onClick={() => onOpen(index)} className="cursor-pointer">
          {index > 0 && <line x1={fold.x - 4} x2={fold.x - 4} y1={0} y2={axis} stroke="var(--rule-2)" />}
          <rect x={fold.x} y={0} width={fold.width} height={SCORE_TOP - 12} fill="transparent" />
          {fold.width > 46 && (
            <text
              x={fold.x}
              y={16}
              className="fill-[var(--ink)] font-[family-name:var(--font-head)] text-[15px] font-bold"
            >
              {clip(names[index] ?? "", fold.width, 8.2)}
            </text>
          )}
          {index === open && fold.width > 120 && (
            <text x={fold.x} y={32} className="fill-[var(--ink-2)] text-[12px]">
              {clip(evaluation.parts[index]?.text ?? "", fold.width, 6)}
            </text>
          )}
          <line x1={fold.x} x2={fold.x + fold.width} y1={GROUND} y2={GROUND} stroke="var(--ink)" strokeWidth={1.2} />
        </g>
      ))}
    </>
  );
}

function clip(text: string, width: number, perLetter: number): string {
  const room = Math.floor(width / perLetter);
  return text.length <= room ? text : `${text.slice(0, Math.max(1, room - 1)).trimEnd()}…`;
}

interface BlockProps {
  all: Fold[];
  evaluation: Evaluation;
  staff: (demand: number) => number;
  patterns: string;
  lit: ReadonlySet<number>;
  under: Schemas["TimelineInterval"] | undefined;
}

function Blocks({ all, evaluation, staff, patterns, lit, under }: BlockProps) {
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
        const skill = interval.tempo === "technique" || interval.tempo === "freestyle";
        const fill =
          interval.kind === "recover"
            ? `url(#${patterns}-slant)`
            : skill
              ? `url(#${patterns}-dots)`
              : tone(interval.demand_frac);
        const { turn, of: count } = interval.rounds[interval.rounds.length - 1] ?? { turn: 1, of: 1 };
        const numbered = count > 1 && interval.kind === "work" && isFirstOfTurn(evaluation.timeline, index);
        const inHand = under?.start_s === interval.start_s;
        return (
          <g key={interval.start_s}>
            <rect x={left} y={top} width={width} height={GROUND - top} fill={fill} />
            <line x1={left} x2={left + width} y1={top} y2={top} stroke="var(--ink)" strokeWidth={1.6} />
            {marked && <rect x={left} y={GROUND + 3} width={width} height={4} fill="var(--vermilion)" />}
            {numbered && right - left > 8 && (
              <text
                x={(left + right) / 2}
                y={GROUND + 20}
                textAnchor="middle"
                className={`text-[12px] ${inHand ? "fill-[var(--ink)] font-bold" : "fill-[var(--ink-2)]"}`}
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

function isFirstOfTurn(timeline: Evaluation["timeline"], index: number): boolean {
  const before = timeline[index - 1];
  const now = timeline[index];
  if (!before || !now || before.part !== now.part || before.rounds.length !== now.rounds.length) return true;
  return before.kind !== "work" || JSON.stringify(before.rounds) !== JSON.stringify(now.rounds);
}

interface StaveProps {
  lane: Lane;
  all: Fold[];
  seconds: number[];
  top: number;
  height: number;
  wide: boolean;
}

function Stave({ lane, all, seconds, top, height, wide }: StaveProps) {
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

function Axis({ all, y }: { all: Fold[]; y: number }) {
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

function Cursor({ at, x, lanes, seconds, axis, top, height, room }: CursorProps) {
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
