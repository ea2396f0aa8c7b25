import type { Schemas } from "../../api/client";

const WIDTH = 260;
const HEIGHT = 96;

/** The load of the week: ink is done, an outline is planned. */
export function Week({ week, on }: { week: Schemas["DayLoad"][]; on: string }) {
  const most = Math.max(1, ...week.map((each) => Math.max(each.planned, each.done)));
  const planned = week.reduce((sum, each) => sum + each.planned, 0);
  const done = week.reduce((sum, each) => sum + each.done, 0);
  const wide = WIDTH / 7;
  const height = (load: number) => (load / most) * HEIGHT;
  const words = `Club load ${Math.round(done)} done, about ${Math.round(planned)} planned, RPE × minutes`;
  return (
    <section aria-label="This week" className="rule-t mt-4 pt-3">
      <h2>The week</h2>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + 26}`} role="img" aria-label={words} className="w-full max-w-[280px]">
        {week.map((each, index) => (
          <g key={each.on}>
            <rect
              x={index * wide + 6}
              y={HEIGHT - height(each.planned) + 4}
              width={wide - 12}
              height={height(each.planned)}
              fill="none"
              stroke="var(--ink)"
            />
            <rect
              x={index * wide + 6}
              y={HEIGHT - height(each.done) + 4}
              width={wide - 12}
              height={height(each.done)}
              fill="var(--ink)"
            />
            <text
              x={index * wide + wide / 2}
              y={HEIGHT + 20}
              fontSize={12}
              fontWeight={each.on === on ? 700 : 400}
              textAnchor="middle"
              fill="var(--ink)"
            >
              {new Date(`${each.on}T12:00`).toLocaleDateString([], { weekday: "narrow" })}
            </text>
          </g>
        ))}
        <line x1={0} x2={WIDTH} y1={HEIGHT + 4} y2={HEIGHT + 4} stroke="var(--ink)" />
      </svg>
      <p className="quiet text-[13px] leading-[17px]">{words}.</p>
    </section>
  );
}
