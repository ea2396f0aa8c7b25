import type { Schemas } from "../../api/client";
import { clock } from "../../domain/time";

/** Rounds that the clock does not end, of reps or open-ended, each with what was asked and the time it took. */
export function UntimedRounds({ rounds, names }: { rounds: Schemas["Round"][]; names: string[] }) {
  const untimed = rounds.filter((round) => round.reps_asked != null || round.stated_s != null);
  if (untimed.length === 0) return null;
  return (
    <table className="mt-4 w-full">
      <caption className="label-text pb-1 text-left">Rounds of their own length</caption>
      <thead className="label-text text-left">
        <tr>
          <th>Round</th>
          <th className="text-right">asked</th>
          <th className="text-right">time</th>
        </tr>
      </thead>
      <tbody>
        {untimed.map((round, index) => (
          <tr key={round.start_s} className="rule-t">
            <th scope="row" className="py-1 text-left font-normal">
              {index + 1}, {names[round.part] ?? ""}
            </th>
            <td className="text-right">
              {round.reps_asked != null
                ? `${round.reps ?? "not counted"} of ${round.reps_asked} reps`
                : `open, about ${clock(round.stated_s ?? 0)}`}
            </td>
            <td className="text-right">{round.took_s ? clock(round.took_s) : "none"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
