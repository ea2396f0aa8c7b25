import type { Schemas } from "../../api/client";
import { LIMBS } from "../../ui/Strikes";

type Trends = Schemas["TrendsOut"];
type Week = Schemas["TrendWeek"];

const COLUMNS: { name: string; of: (week: Week) => number | null; digits: number }[] = [
  { name: "Sessions", of: ({ sessions }) => sessions, digits: 0 },
  { name: "Load planned", of: ({ planned }) => planned, digits: 0 },
  { name: "Load", of: ({ load }) => load, digits: 0 },
  { name: "Monotony", of: ({ monotony }) => monotony, digits: 2 },
  { name: "Strain", of: ({ strain }) => strain, digits: 0 },
  { name: "Mean of 7 days", of: ({ short_mean }) => short_mean, digits: 0 },
  { name: "Mean of 28 days", of: ({ long_mean }) => long_mean, digits: 0 },
  ...LIMBS.map((limb) => ({ name: `Strikes, ${limb}`, of: ({ limbs }: Week) => limbs[limb] ?? 0, digits: 0 })),
  ...(["aerobic", "lactic", "sprint"] as const).map((store) => ({
    name: `Minutes, ${store}`,
    of: ({ minutes }: Week) => minutes[store] ?? 0,
    digits: 1,
  })),
];

/** The same numbers as a file, one line a week; a number that is not told is empty. */
export function csvOf({ weeks }: Trends): string {
  const lines = weeks.map((week) => [
    week.monday,
    ...COLUMNS.map(({ of, digits }) => {
      const value = of(week);
      return value === null ? "" : value.toFixed(digits);
    }),
  ]);
  return [["Week of", ...COLUMNS.map(({ name }) => `"${name}"`)], ...lines].map((line) => line.join(",")).join("\r\n");
}

export function NumbersTable({ trends: { weeks } }: { trends: Trends }) {
  return (
    <section aria-label="Numbers of the weeks" className="mt-3 overflow-x-auto">
      <table className="w-full text-right text-[13px]">
        <thead className="label-text align-bottom">
          <tr>
            <th className="py-1 text-left">Week of</th>
            {COLUMNS.map(({ name }) => (
              <th key={name} className="min-w-[64px] pl-2">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {weeks.map((week) => (
            <tr key={week.monday} className="border-t border-[var(--rule)]">
              <th className="py-[5px] text-left font-normal whitespace-nowrap">
                {new Date(`${week.monday}T12:00:00`).toLocaleDateString("en-GB", { day: "numeric", month: "short" })}
                {!week.over && <span className="quiet"> so far</span>}
              </th>
              {COLUMNS.map(({ name, of, digits }) => {
                const value = of(week);
                return (
                  <td key={name} className="pl-2">
                    {value === null ? "" : value.toLocaleString("en", { maximumFractionDigits: digits })}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
