import { scaleLinear } from "d3-scale";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { whole } from "../../domain/figures";
import { type Frame, GUTTER, upTo, type Week } from "./frame";

interface RowProps {
  y: number;
  title: string;
  about?: string | undefined;
  children: ReactNode;
}

/** A row of the drawing with its name at the left. */
export function Row({ y, title, about, children }: RowProps) {
  return (
    <g transform={`translate(0 ${y})`}>
      <text x={0} y={14} className="fill-[var(--ink)] text-[13px] font-semibold">
        {title}
      </text>
      {about?.split("\n").map((line, index) => (
        <text key={line} x={0} y={30 + 15 * index} className="fill-[var(--ink-2)] text-[12px]">
          {line}
        </text>
      ))}
      {children}
    </g>
  );
}

interface OfWeeks {
  frame: Frame;
  weeks: readonly Week[];
}

/** The Mondays, over the columns they begin. */
export function Mondays({ frame, weeks, height }: OfWeeks & { height: number }) {
  const every = Math.ceil(52 / Math.max(1, frame.band.step()));
  return (
    <g>
      {weeks.map(({ monday, over }, index) => {
        const x = (frame.band(monday) ?? 0) - (frame.band.step() * frame.band.paddingInner()) / 2;
        const on = new Date(`${monday}T12:00:00`);
        const shown = index % every === 0;
        const first = index === 0 || on.getDate() <= 7 * every;
        return (
          <g key={monday}>
            {!over && <rect x={x} y={0} width={frame.band.step()} height={height} fill="var(--sheet)" />}
            {shown && <line x1={x} x2={x} y1={0} y2={height} stroke="var(--rule)" />}
            {shown && (
              <text x={x + 5} y={14} className="fill-[var(--ink-2)] text-[12px]">
                {on.toLocaleDateString("en-GB", first ? { day: "numeric", month: "short" } : { day: "numeric" })}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Ink is done, an outline is planned. */
export function Loads({ frame, weeks, height }: OfWeeks & { height: number }) {
  const tall = upTo(Math.max(...weeks.flatMap(({ load, planned }) => [load, planned])), height - 18);
  return (
    <g>
      {weeks.map(({ monday, load, planned }) => {
        const x = frame.band(monday) ?? 0;
        const wide = frame.band.bandwidth();
        const top = height - Math.max(tall(load), tall(planned));
        return (
          <g key={monday}>
            <rect x={x} y={height - tall(load)} width={wide} height={tall(load)} fill="var(--ink)" />
            <rect
              x={x}
              y={height - tall(planned)}
              width={wide}
              height={tall(planned)}
              fill="none"
              stroke="var(--ink)"
            />
            {frame.wide && load > 0 && (
              <text x={x + wide / 2} y={top - 5} textAnchor="middle" className="fill-[var(--ink)] text-[12px]">
                {whole(load)}
              </text>
            )}
          </g>
        );
      })}
      <line x1={GUTTER} x2={frame.width} y1={height} y2={height} stroke="var(--ink)" />
    </g>
  );
}

/** A number of each week as a line; from a mark on it is shown in vermilion. */
export function Line({
  frame,
  weeks,
  height,
  of,
  mark,
}: OfWeeks & { height: number; of: (week: Week) => number | null; mark: number }) {
  const points = weeks.flatMap((week) => {
    const value = of(week);
    return value === null ? [] : [{ monday: week.monday, value }];
  });
  const up = upTo(Math.max(mark * 1.2, ...points.map(({ value }) => value)), height - 6);
  const x = (monday: string) => (frame.band(monday) ?? 0) + frame.band.bandwidth() / 2;
  return (
    <g>
      <line
        x1={GUTTER}
        x2={frame.width}
        y1={height - up(mark)}
        y2={height - up(mark)}
        stroke="var(--rule-2)"
        strokeDasharray="1 4"
      />
      <text x={frame.width - 4} y={height - up(mark) - 4} textAnchor="end" className="fill-[var(--ink-2)] text-[12px]">
        {mark}
      </text>
      <polyline
        points={points.map(({ monday, value }) => `${x(monday)},${height - up(value)}`).join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      {points.map(({ monday, value }) => (
        <circle
          key={monday}
          cx={x(monday)}
          cy={height - up(value)}
          r={value >= mark ? 4 : 2.6}
          fill={value >= mark ? "var(--vermilion)" : "var(--ink)"}
        />
      ))}
    </g>
  );
}

interface Lane {
  id: string;
  name: string;
  of: (week: Week) => number;
  ink: string;
  /** Over it a bar is shown in vermilion. */
  most?: number;
}

export const LANE = 21;
/** What a number of four figures behind a bar takes. */
const NUMBER = 36;

/** A bar in each week for each lane. */
export function Lanes({ frame, weeks, lanes }: OfWeeks & { lanes: readonly Lane[] }) {
  const most = Math.max(...lanes.flatMap((lane) => weeks.map(lane.of)));
  const room = frame.band.bandwidth();
  const long = upTo(most, frame.wide ? Math.max(8, room - NUMBER) : room);
  return (
    <g>
      {lanes.map((lane, index) => (
        <g key={lane.id} transform={`translate(0 ${index * LANE})`}>
          <text x={GUTTER - 8} y={13} textAnchor="end" className="fill-[var(--ink)] text-[12px]">
            {lane.name}
          </text>
          {weeks.map((week) => {
            const value = lane.of(week);
            const x = frame.band(week.monday) ?? 0;
            if (value < 0.5) return null;
            const over = lane.most !== undefined && value > lane.most;
            return (
              <g key={week.monday}>
                <rect
                  x={x}
                  y={3}
                  width={Math.max(1.5, long(value))}
                  height={11}
                  fill={over ? "var(--vermilion)" : lane.ink}
                />
                {frame.wide && (
                  <text x={x + long(value) + 4} y={13} className="fill-[var(--ink)] text-[11.5px]">
                    {whole(value)}
                  </text>
                )}
              </g>
            );
          })}
        </g>
      ))}
    </g>
  );
}

/** Values with their error, where they were found. */
export function Tried({
  frame,
  tests,
  height,
  show,
}: {
  frame: Frame;
  tests: readonly Schemas["TrendTest"][];
  height: number;
  show: (value: number) => string;
}) {
  const ends = tests.flatMap(({ value, error }) => [value - error, value + error]);
  const up = scaleLinear()
    .domain([Math.min(...ends), Math.max(...ends)])
    .range([height - 8, 8]);
  return (
    <g>
      {tests.map(({ on, kind, value, error }) => {
        const x = Math.min(frame.at(on), frame.width - 36);
        return (
          <g key={`${on} ${kind}`}>
            <line
              x1={x}
              x2={x}
              y1={up(value - error)}
              y2={up(value + error)}
              stroke="var(--vermilion)"
              strokeWidth={1.4}
            />
            <rect x={x - 4} y={up(value) - 4} width={8} height={8} fill="var(--vermilion)" />
            <text x={x + 9} y={up(value) + 4} className="fill-[var(--ink)] text-[13px] font-semibold">
              {show(value)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** What was expected as a bar, what was said as a dot; outside of it in vermilion. */
export function Ratings({
  frame,
  ratings,
  height,
}: {
  frame: Frame;
  ratings: readonly Schemas["TrendRating"][];
  height: number;
}) {
  const up = scaleLinear().domain([0, 10]).range([height, 0]);
  const wide = Math.max(3, Math.min(8, frame.band.step() / 8));
  return (
    <g>
      {[0, 5, 10].map((mark) => (
        <text key={mark} x={GUTTER - 8} y={up(mark) + 4} textAnchor="end" className="fill-[var(--ink-2)] text-[11px]">
          {mark}
        </text>
      ))}
      {ratings.map(({ entry_id, started_at, rpe, low, high }) => {
        const x = frame.at(started_at);
        const inside = rpe >= low && rpe <= high;
        return (
          <g key={entry_id}>
            <rect x={x - wide / 2} y={up(high)} width={wide} height={up(low) - up(high)} fill="var(--rule-2)" />
            <circle cx={x} cy={up(rpe)} r={3.4} fill={inside ? "var(--ink)" : "var(--vermilion)"} />
          </g>
        );
      })}
      <line x1={GUTTER} x2={frame.width} y1={height + 1} y2={height + 1} stroke="var(--ink)" />
    </g>
  );
}
