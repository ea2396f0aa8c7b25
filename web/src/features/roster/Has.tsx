import type { Schemas } from "../../api/client";
import { Store } from "../../ui/Store";
import type { Page } from "./useRoster";

type Capacity = Schemas["Capacity"];
const WIDTH = 150;
const HEIGHT = 22;

/** Every capacity with its 80 % range, the squad as light ticks, and where it came from. */
export function Has({ page }: { page: Page }) {
  return (
    <section aria-label="What they have">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h2>What {page.person.name.split(" ")[0]} has</h2>
        <p className="quiet text-[13px]">80 % range; the others as light ticks</p>
      </div>
      <ul>
        {page.capacities.map((capacity) => (
          <li
            key={capacity.id}
            className="rule-t grid grid-cols-[1fr_auto] items-center gap-x-4 py-[5px] min-[700px]:grid-cols-[1.1fr_1.2fr_150px]"
          >
            <span className="flex items-center gap-2">
              <Store store={capacity.store} />
              {capacity.name}
            </span>
            <span>
              <b>
                {told(capacity.value, capacity.unit)} {capacity.unit}
              </b>{" "}
              <span className="quiet text-[13px] whitespace-nowrap">
                {told(capacity.low, capacity.unit)} to {told(capacity.high, capacity.unit)}
              </span>
              <span className="quiet block text-[12px] leading-[16px]">
                {ORIGIN[capacity.origin]}: {capacity.source}
              </span>
            </span>
            <Range capacity={capacity} squad={page.squad[capacity.id] ?? []} />
          </li>
        ))}
      </ul>
    </section>
  );
}

const ORIGIN = { measured: "Test", estimated: "By formula", default: "Default", learned: "From logs" };

const told = (value: number, unit: string): string => (unit === "a second" ? value.toFixed(1) : value.toFixed(0));

/** Square = best guess, whisker = 80 % range, light ticks = the others. */
function Range({ capacity: { value, low, high, name }, squad }: { capacity: Capacity; squad: number[] }) {
  const least = Math.min(low, ...squad);
  const most = Math.max(high, ...squad);
  const x = (at: number) => 6 + ((at - least) / (most - least || 1)) * (WIDTH - 12);
  const mid = HEIGHT / 2;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`${name} beside ${squad.length} others`}
      className="max-[699px]:col-span-2"
    >
      <path
        d={squad.map((each) => `M${x(each)} ${mid - 5} v10`).join(" ")}
        stroke="var(--rule-2)"
        strokeWidth={1.4}
        fill="none"
      />
      <g stroke="var(--ink)" strokeWidth={1.8}>
        <line x1={x(low)} x2={x(high)} y1={mid} y2={mid} />
        <line x1={x(low)} x2={x(low)} y1={mid - 6} y2={mid + 6} />
        <line x1={x(high)} x2={x(high)} y1={mid - 6} y2={mid + 6} />
      </g>
      <rect x={x(value) - 4} y={mid - 4} width={8} height={8} fill="var(--ink)" />
    </svg>
  );
}
