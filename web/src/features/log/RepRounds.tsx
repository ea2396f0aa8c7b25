import type { Schemas } from "../../api/client";
import { clock } from "../../domain/time";

/** Rounds of reps, each with what was counted and the time it took. */
export function RepRounds({ rounds, names }: { rounds: Schemas["Round"][]; names: string[] }) {
  const counted = rounds.filter((round) => round.reps_asked != null);
  if (counted.length === 0) return null;
  return (
    <table className="mt-4 w-full">
      <caption className="label-text pb-1 text-left">Rounds of reps</caption>
      <thead className="label-text text-left">
        <tr>
          <th>Round</th>
          <th className="text-right">reps</th>
          <th className="text-right">time</th>
        </tr>
      </thead>
      <tbody>
        {counted.map((round, index) => (
          <tr key={round.start_s} className="rule-t">
            <th scope="row" className="py-1 text-left font-normal">
              {index + 1}, {names[round.part] ?? ""}
            </th>
            <td className="text-right">
              {round.reps ?? "not counted"} of {round.reps_asked}
            </td>
            <td className="text-right">{round.took_s ? clock(round.took_s) : "none"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
