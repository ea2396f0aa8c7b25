import { useCallback, useEffect, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { Axis, Cursor } from "./Axis";
import { Blocks, Patterns } from "./Blocks";
import { describe } from "./describe";
import { GROUND, SCORE_HEIGHT } from "./geometry";
import { Heads } from "./Heads";
import { FULL_HEIGHT, STAFF } from "./ink";
import { lanesOf } from "./lanes";
import { folds, timeAt, xOf } from "./layout";
import { Stave } from "./Stave";
import { under } from "./under";

interface Props {
  evaluation: Schemas["Evaluation"];
  names: string[];
  open: number | null;
  lit: ReadonlySet<number>;
  onOpen: (part: number) => void;
  /** The word of an effort. */
  wordOf: (tempo: string) => string;
}

/** The session as a score: effort is height and ink, the stores beneath on the same time axis, one cursor for all. */
export function Score({ evaluation, names, open, lit, onOpen, wordOf }: Props) {
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
  const interval = at === null ? undefined : evaluation.timeline.findLast((interval) => interval.start_s <= at);

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
            <Blocks all={all} evaluation={evaluation} staff={staff} patterns={patterns} lit={lit} under={interval} />
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
      <p className="quiet min-h-[17px] text-[12px] leading-[17px]" data-testid="under">
        {interval && at !== null ? under(interval, at, wordOf) : ""}
      </p>
    </div>
  );
}
