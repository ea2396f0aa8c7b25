import { useEffect } from "react";
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
  const rows: { id: string; tall: number; draw: (y: number) => React.ReactNode }[] = [
    {
      id: "load",
      tall: 112,
      draw: (y) => (
        <Row y={y} title="Load" about={"RPE × minutes"}>
          <Loads frame={frame} weeks={trends.weeks} height={108} />
        </Row>
      ),
    },
    {
      id: "monotony",
      tall: 66,
      draw: (y) => (
        <Row y={y} title="Monotony" about={"mean / sample SD"}>
          <Line frame={frame} weeks={trends.weeks} height={58} of={({ monotony }) => monotony} mark={MONOTONOUS} />
        </Row>
      ),
    },
    {
      id: "strikes",
      tall: 4 * LANE,
      draw: (y) => (
        <Row y={y} title="Strikes">
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
        </Row>
      ),
    },
    {
      id: "minutes",
      tall: 3 * LANE,
      draw: (y) => (
        <Row y={y} title="Minutes">
          <Lanes
            frame={frame}
            weeks={trends.weeks}
            lanes={STORES.map(({ id, ink }) => ({ id, name: id, ink, of: ({ minutes }) => minutes[id] ?? 0 }))}
          />
        </Row>
      ),
    },
  ];
  if (strikes.length > 0)
    rows.push({
      id: "tests",
      tall: 64,
      draw: (y) => (
        <Row y={y} title="Tests" about={"10 s, a second"}>
          <Tried frame={frame} tests={strikes} height={60} show={(value) => (value / 10).toFixed(1)} />
        </Row>
      ),
    });
  if (trends.ratings.length > 0)
    rows.push({
      id: "ratings",
      tall: 124,
      draw: (y) => (
        <Row y={y} title="Expected and said" about={"RPE; bar: what\nwas expected, ± 1"}>
          <Ratings frame={frame} ratings={trends.ratings} height={116} />
        </Row>
      ),
    });
  let y = TOP;
  const placed = rows.map((row) => {
    const at = y;
    y += row.tall + 20;
    return { ...row, at };
  });
  const drawn = placed.map((row) => <g key={row.id}>{row.draw(row.at)}</g>);
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
