import type { Schemas } from "../../api/client";
import { FULL_HEIGHT, tone } from "../../charts/score/ink";
import { useWidth } from "../../ui/useWidth";
import { hourOf, minutesOf, spanOf, written } from "./hours";

const HEIGHT = 120;
const BASE = 96;
const STAFF = 66;
/** A session is drawn no narrower than this many minutes. */
const LEAST_MIN = 30;
/** An hour written over a session is so wide [px]. */
const HOUR_WIDTH = 42;

/** The score of a day: hours from left to right, each session its small score at its hour. */
export function DayScore({ planned, now }: { planned: Schemas["PlannedOut"][]; now: number | null }) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const [first, last] = spanOf(planned);
  const x = (minutes: number) => 18 + ((minutes - first) / (last - first)) * (width - 36);
  const every = width < 560 ? 4 * 60 : 2 * 60;
  const hours = Array.from({ length: Math.floor((last - first) / every) + 1 }, (_, index) => first + index * every);
  const hoursOver = written(planned, HOUR_WIDTH / (x(1) - x(0)));
  const told = planned.map((row) => `${row.at.slice(0, 5)} ${row.title}`).join(", ");
  return (
    <div ref={frame} className="min-h-[120px] pb-3">
      {width > 0 && (
        <svg width={width} height={HEIGHT} role="img" aria-label={`The day: ${told}`}>
          <line x1={0} x2={width} y1={BASE} y2={BASE} stroke="var(--ink)" strokeWidth={1.2} />
          {hours.map((minutes) => (
            <text key={minutes} x={x(minutes)} y={BASE + 18} fontSize={12} textAnchor="middle" fill="var(--ink)">
              {hourOf(minutes)}
            </text>
          ))}
          {planned.map((row) => {
            const from = minutesOf(row.at);
            const scale = Math.max(LEAST_MIN, row.total_s / 60) / (row.total_s / 60 || 1);
            let at = from;
            return (
              <g key={row.id} opacity={row.done ? 0.55 : 1}>
                {row.blocks.map((block, index) => {
                  const start = at;
                  at += (block.seconds / 60) * scale;
                  const height = (Math.min(block.demand_frac, FULL_HEIGHT) / FULL_HEIGHT) * STAFF;
                  return (
                    <rect
                      // biome-ignore lint/suspicious/noArrayIndexKey: blocks have their order alone
                      key={index}
                      x={x(start)}
                      y={BASE - height}
                      width={Math.max(0.6, x(at) - x(start) - 0.4)}
                      height={height}
                      fill={tone(block.demand_frac)}
                    />
                  );
                })}
                {hoursOver.has(row.id) && (
                  <text x={x(from)} y={BASE - STAFF - 8} fontSize={13} fontWeight={600} fill="var(--ink)">
                    {row.at.slice(0, 5)}
                  </text>
                )}
              </g>
            );
          })}
          {now !== null && now >= first && now <= last && (
            <line x1={x(now)} x2={x(now)} y1={8} y2={BASE + 4} stroke="var(--ink)" strokeWidth={1.6} />
          )}
        </svg>
      )}
    </div>
  );
}
