import { memo, useCallback, useId, useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { SCORE, useKeys } from "../../ui/keymap";
import { useWidth } from "../../ui/useWidth";
import { Axis, Cursor } from "./Axis";
import { Blocks, NumberInHand, Patterns } from "./Blocks";
import { describe } from "./describe";
import { GROUND, SCORE_HEIGHT } from "./geometry";
import { Heads } from "./Heads";
import { FULL_HEIGHT, STAFF } from "./ink";
import { type Lane, lanesOf } from "./lanes";
import { type Fold, folds, timeAt, xOf } from "./layout";
import { Stave } from "./Stave";
import { under } from "./under";

interface Props {
  evaluation: Schemas["Evaluation"];
  names: string[];
  open: number | null;
  /** The parts that are unfolded besides the one in hand. */
  unfolded: ReadonlySet<number>;
  lit: ReadonlySet<number>;
  onOpen: (part: number) => void;
  /** The word of an effort. */
  wordOf: (tempo: string) => string;
}

const staff = (demand: number) => GROUND - (Math.min(demand, FULL_HEIGHT) / FULL_HEIGHT) * SCORE_HEIGHT;

/** The session as a score: effort is height and ink, the stores beneath on the same time axis, one cursor for all. */
export function Score({ evaluation, names, open, unfolded, lit, onOpen, wordOf }: Props) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const [cursor, setCursor] = useState<number | null>(null);

  const wide = width >= 640;
  const gutter = wide ? 92 : 0;
  const room = Math.max(0, width - gutter);
  const all = useMemo(() => {
    const shown = new Set(unfolded);
    if (open !== null) shown.add(open);
    return folds(evaluation.parts, shown, room);
  }, [evaluation.parts, open, unfolded, room]);
  const lanes = useMemo(() => lanesOf(evaluation.reading), [evaluation.reading]);
  const laneHeight = wide ? 38 : 30;
  const laneStep = wide ? 46 : 48;
  const laneTop = useCallback(
    (index: number) => GROUND + 26 + index * laneStep + (laneStep - laneHeight),
    [laneStep, laneHeight],
  );
  const axis = GROUND + 26 + lanes.length * laneStep;

  const move = useCallback(
    (by: number) => setCursor((at) => Math.min(evaluation.total_s, Math.max(0, (at ?? 0) + by))),
    [evaluation.total_s],
  );
  useKeys(SCORE, { earlier: () => move(-5), later: () => move(5) });

  const at = cursor === null ? null : Math.min(cursor, evaluation.total_s);
  const interval = at === null ? undefined : evaluation.timeline.findLast((interval) => interval.start_s <= at);
  const point = (event: React.PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    setCursor(timeAt(all, event.clientX - box.left - gutter));
  };

  return (
    <div ref={frame} className="relative w-full">
      {width > 0 && (
        <svg
          width={width}
          height={axis + 26}
          viewBox={`0 0 ${width} ${axis + 26}`}
          role="img"
          aria-label={describe(evaluation, names)}
          className="score block touch-pan-y select-none"
          onPointerDown={point}
          onPointerMove={point}
          onPointerLeave={(event) => event.pointerType === "mouse" && setCursor(null)}
        >
          <g transform={`translate(${gutter} 0)`}>
            <Drawing
              evaluation={evaluation}
              names={names}
              open={open}
              lit={lit}
              all={all}
              lanes={lanes}
              laneTop={laneTop}
              laneHeight={laneHeight}
              wide={wide}
              room={room}
              axis={axis}
              onOpen={onOpen}
            />
            {at !== null && (
              <>
                {interval && <NumberInHand all={all} interval={interval} />}
                <Cursor
                  at={at}
                  x={xOf(all, at)}
                  lanes={lanes}
                  seconds={evaluation.reading?.traces.seconds ?? []}
                  axis={axis}
                  top={laneTop}
                  height={laneHeight}
                  room={room}
                />
              </>
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

interface DrawingProps extends Pick<Props, "evaluation" | "names" | "open" | "lit" | "onOpen"> {
  all: Fold[];
  lanes: Lane[];
  laneTop: (index: number) => number;
  laneHeight: number;
  wide: boolean;
  room: number;
  axis: number;
}

/** Everything but the cursor, so that moving it draws nothing anew. */
const Drawing = memo(function Drawing(props: DrawingProps) {
  const { evaluation, names, open, lit, all, lanes, laneTop, laneHeight, wide, room, axis, onOpen } = props;
  const patterns = useId();
  const hand = open === null ? undefined : all[open];
  const reading = evaluation.reading;
  return (
    <>
      <Patterns id={patterns} />
      {hand && all.length > 1 && <rect x={hand.x} y={0} width={hand.width} height={axis} fill="var(--sheet)" />}
      {STAFF.map((line) => (
        <g key={line.word}>
          <line x1={0} x2={room} y1={staff(line.at)} y2={staff(line.at)} stroke="var(--rule)" />
          {wide && (
            <text x={-10} y={staff(line.at) + 4} textAnchor="end" className="fill-[var(--ink-2)] text-[12px]">
              {line.word}
            </text>
          )}
        </g>
      ))}
      <Heads all={all} names={names} evaluation={evaluation} open={open} onOpen={onOpen} axis={axis} />
      <Blocks all={all} evaluation={evaluation} staff={staff} patterns={patterns} lit={lit} />
      {lanes.map((lane, index) => (
        <Stave
          key={lane.id}
          lane={lane}
          all={all}
          seconds={reading?.traces.seconds ?? []}
          bandSeconds={reading?.bands?.seconds ?? []}
          top={laneTop(index)}
          height={laneHeight}
          wide={wide}
        />
      ))}
      <Axis all={all} y={axis} />
    </>
  );
});
