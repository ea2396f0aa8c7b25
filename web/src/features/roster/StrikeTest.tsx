import { day } from "../../domain/time";
import { Store } from "../../ui/Store";
import { useWidth } from "../../ui/useWidth";
import type { Page } from "./useRoster";

const HEIGHT = 150;
const BASE = 126;
/** Seconds between two bars of different tests. */
const GAP_S = 18;

interface Bar {
  from_s: number;
  seconds: number;
  strikes: number;
  name: string;
  /** Of 3:00, where the reserve above the hold is told. */
  split: boolean;
}

/** The three tests one after the other, on one axis of seconds. */
function barsOf([ten = 0, thirty = 0, ...splits]: number[]): Bar[] {
  const first = { from_s: 0, seconds: 10, strikes: ten, name: `${ten} in 10 s`, split: false };
  const second = { from_s: 10 + GAP_S, seconds: 30, strikes: thirty, name: `${thirty} in 30 s`, split: false };
  const from_s = 40 + 2 * GAP_S;
  const rest = splits.map((strikes, index) => ({
    from_s: from_s + 30 * index,
    seconds: 30,
    strikes,
    name: String(strikes),
    split: true,
  }));
  return [first, second, ...rest];
}

/** The last strike test as bars of strikes a second: the top, what is held, and the reserve above the hold. */
export function StrikeTest({ page, onNew }: { page: Page; onNew: () => void }) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const test = page.tests.find((each) => each.kind === "strikes");
  const { strikes } = page;
  if (!test?.counts || !strikes) {
    return (
      <section aria-label="Strike test" className="ink-t pt-3 pb-5">
        <h2>Strike test</h2>
        <p className="quiet">
          None yet: top rate and stores are defaults. Ten seconds, thirty, and 3:00 in six splits tell them.{" "}
          <button type="button" className="link" onClick={onNew}>
            Enter one
          </button>
        </p>
      </section>
    );
  }
  const about = [day(test.on), test.where && `on ${test.where}`, test.counted_by && `counted by ${test.counted_by}`];
  const bars = barsOf(test.counts);
  const whole_s = (bars.at(-1)?.from_s ?? 0) + 30;
  const top = Math.max(...bars.map((bar) => bar.strikes / bar.seconds));
  const x = (second: number) => (second / whole_s) * width;
  const y = (rate: number) => BASE - (rate / top) * (BASE - 4);
  const hold = y(strikes.hold_per_s);
  const told: ["sprint" | "lactic" | "aerobic", string][] = [
    ["sprint", `top ${strikes.top_per_s.toFixed(1)} a second`],
    ["lactic", `reserve above the hold: ${strikes.reserve} strikes`],
    ["aerobic", `hold ${strikes.hold_per_s.toFixed(1)} a second`],
  ];
  return (
    <section aria-label="Strike test" className="ink-t pt-3 pb-5">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h2>Strike test</h2>
        <p className="quiet text-[13px]">{about.filter(Boolean).join(", ")}</p>
      </div>
      <p className="flex flex-wrap gap-x-6 pt-1 pb-2 text-[13px] font-semibold">
        {told.map(([store, words]) => (
          <span key={store} className="flex items-center gap-2">
            <Store store={store} /> {words}
          </span>
        ))}
      </p>
      <div ref={frame} className="min-h-[150px]">
        {width > 0 && (
          <svg width={width} height={HEIGHT} role="img" aria-label={told.map(([, words]) => words).join(", ")}>
            {bars.map((bar) => {
              const rate = bar.strikes / bar.seconds;
              return (
                <g key={bar.from_s}>
                  <rect
                    x={x(bar.from_s)}
                    y={y(rate)}
                    width={x(bar.seconds) - 1.5}
                    height={BASE - y(rate)}
                    fill={bar.split ? "var(--ink-e100)" : "var(--ink)"}
                  />
                  {bar.split && rate > strikes.hold_per_s && (
                    <rect
                      x={x(bar.from_s)}
                      y={y(rate)}
                      width={x(bar.seconds) - 1.5}
                      height={hold - y(rate)}
                      fill="var(--lactic)"
                    />
                  )}
                  <text x={x(bar.from_s)} y={BASE + 16} fontSize={12} fill="var(--ink)">
                    {width < 560 ? bar.strikes : bar.name}
                  </text>
                </g>
              );
            })}
            <line x1={x(40 + 2 * GAP_S)} x2={width} y1={hold} y2={hold} stroke="var(--sheet)" strokeWidth={4} />
            <line x1={x(40 + 2 * GAP_S)} x2={width} y1={hold} y2={hold} stroke="var(--aerobic)" strokeWidth={2} />
          </svg>
        )}
      </div>
    </section>
  );
}
