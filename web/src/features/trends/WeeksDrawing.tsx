import { type ReactNode, useEffect } from "react";
import type { Schemas } from "../../api/client";
import { LANE, Lanes, Line, Loads, Mondays, Ratings, Row, Tried } from "../../charts/weeks/Drawings";
import { frameOf, GUTTER } from "../../charts/weeks/frame";
import { LIMBS } from "../../ui/Strikes";
import { useWidth } from "../../ui/useWidth";

type Trends = Schemas["TrendsOut"];
const NARROWEST = 720;
const STORES = [
  { id: "aerobic", ink: "var(--aerobic)" },
  { id: "lactic", ink: "var(--lactic)" },
  { id: "sprint", ink: "var(--sprint)" },
] as const;
const MONOTONOUS = 2;
const TOP = 28;

/** All rows of the weeks on one scale of time. */
export function WeeksDrawing({ trends }: { trends: Trends }) {
  const [frameRef, room] = useWidth<HTMLElement>();
  const width = Math.max(NARROWEST, room);
  const frame = frameOf(trends.weeks, width);
  // Where not all of it fits, the newest weeks are what is seen first.
  useEffect(() => {
    if (room > 0) frameRef.current?.scrollTo({ left: width });
  }, [frameRef, room, width]);
  const strikes = trends.tests.filter(({ kind }) => kind === "strikes");
  const rows: { title: string; about?: string; tall: number; drawn: ReactNode }[] = [
    {
      title: "Load",
      about: "RPE × minutes",
      tall: 112,
      drawn: <Loads frame={frame} weeks={trends.weeks} height={108} />,
    },
    {
      title: "Monotony",
      about: "mean / sample SD",
      tall: 66,
      drawn: <Line frame={frame} weeks={trends.weeks} height={58} of={({ monotony }) => monotony} mark={MONOTONOUS} />,
    },
    {
      title: "Strikes",
      tall: 4 * LANE,
      drawn: (
        <Lanes
          frame={frame}
          weeks={trends.weeks}
          lanes={LIMBS.map((limb) => ({
            id: limb,
            name: limb,
            ink: "var(--ink)",
            of: ({ limbs }) => limbs[limb] ?? 0,
            most: trends.ceilings[limb],
          }))}
        />
      ),
    },
    {
      title: "Minutes",
      tall: 3 * LANE,
      drawn: (
        <Lanes
          frame={frame}
          weeks={trends.weeks}
          lanes={STORES.map(({ id, ink }) => ({ id, name: id, ink, of: ({ minutes }) => minutes[id] ?? 0 }))}
        />
      ),
    },
  ];
  if (strikes.length > 0)
    rows.push({
      title: "Tests",
      about: "10 s, a second",
      tall: 64,
      drawn: <Tried frame={frame} tests={strikes} height={60} show={(value) => (value / 10).toFixed(1)} />,
    });
  if (trends.ratings.length > 0)
    rows.push({
      title: "Expected and said",
      about: "RPE; bar: what\nwas expected, ± 1",
      tall: 124,
      drawn: <Ratings frame={frame} ratings={trends.ratings} height={116} />,
    });
  let y = TOP;
  const placed = rows.map((row) => {
    const at = y;
    y += row.tall + 20;
    return { ...row, at };
  });
  const drawn = placed.map(({ at, title, about, drawn: inside }) => (
    <Row key={title} y={at} title={title} about={about}>
      {inside}
    </Row>
  ));
  return (
    <section
      ref={frameRef}
      aria-label="Weeks"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what is wider than the screen is moved by keys
      tabIndex={0}
      className="isolate mt-3 overflow-x-auto"
    >
      <div className="relative" style={{ width }}>
        {width > room && (
          // What the rows are called stays beside them, however far they are moved.
          <div className="sticky left-0 z-10 bg-[var(--paper)]" style={{ width: GUTTER, height: 0 }}>
            <svg aria-hidden="true" width={GUTTER} height={y} className="block overflow-hidden bg-[var(--paper)]">
              {drawn}
            </svg>
          </div>
        )}
        <svg
          width={width}
          height={y}
          viewBox={`0 0 ${width} ${y}`}
          role="img"
          aria-label={`${trends.who}: load, monotony, strikes, minutes${strikes.length ? ", tests" : ""} of ${trends.weeks.length} weeks. The numbers are in the table.`}
        >
          <Mondays frame={frame} weeks={trends.weeks} height={y} />
          {drawn}
        </svg>
      </div>
    </section>
  );
}
