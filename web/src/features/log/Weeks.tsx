import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { people as peopleQuery, weeks as weeksQuery } from "../../api/queries";
import { LIMBS } from "../../ui/Strikes";

/** Strikes of a person, week by week and limb by limb. */
export function Weeks() {
  const people = useQuery(peopleQuery).data ?? [];
  const [chosen, setChosen] = useState<number | null>(null);
  const who = chosen ?? people[0]?.id ?? null;
  const { data } = useQuery({ ...weeksQuery(who ?? 0), enabled: who !== null });
  if (who === null) return null;
  const most = Math.max(1, ...(data ?? []).map((week) => week.strikes));
  return (
    <section aria-label="Strikes by week" className="pt-6">
      <div className="flex flex-wrap items-end justify-between gap-3 border-b border-[var(--ink)] pb-2">
        <h2>Strikes by week</h2>
        <label className="label-text">
          <span className="sr-only">Of</span>
          <select
            className="field cursor-pointer"
            value={who}
            onChange={(event) => setChosen(Number(event.target.value))}
          >
            {people.map((person) => (
              <option key={person.id} value={person.id}>
                {person.name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {!data ? (
        <p role="status" className="quiet pt-2">
          Counting …
        </p>
      ) : data.every((week) => week.sessions === 0) ? (
        <p className="quiet pt-2">Nothing logged in the last eight weeks.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full min-w-[358px] text-right text-[13px]">
            <thead className="label-text">
              <tr>
                <th className="py-1 text-left">Week of</th>
                <th className="hidden w-[34%] min-[700px]:table-cell" aria-label="All" />
                <th>All</th>
                {LIMBS.map((limb) => (
                  <th key={limb}>{limb}</th>
                ))}
                <th>Counted</th>
              </tr>
            </thead>
            <tbody>
              {data.map((week) => (
                <tr key={week.monday} className="border-t border-[var(--rule)]">
                  <th className="py-[5px] text-left font-normal whitespace-nowrap">
                    {new Date(`${week.monday}T12:00:00`).toLocaleDateString([], { day: "numeric", month: "short" })}
                  </th>
                  <td className="hidden min-[700px]:table-cell">
                    <span
                      className="block h-[12px] bg-[var(--ink)]"
                      style={{ width: `${(100 * week.strikes) / most}%` }}
                    />
                  </td>
                  <td className="font-semibold">{Math.round(week.strikes)}</td>
                  {LIMBS.map((limb) => (
                    <td key={limb}>{Math.round(week.limbs[limb] ?? 0)}</td>
                  ))}
                  <td className="quiet">{Math.round(week.counted)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p className="quiet pt-1 text-[12px]">
        As counted on the floor where somebody counted, and as expected by the model where not.
      </p>
    </section>
  );
}
