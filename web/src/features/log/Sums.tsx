import type { Schemas } from "../../api/client";
import { clock } from "../../domain/time";

type Done = Schemas["Done"];

interface Props {
  plan: { total_s: number; rpe: number; efforts: number; strikes: number; names: string[] };
  done: { played_s: number; efforts: number; rpe: number | null; strikes: number | null };
  /** Null where the server has not read it yet. */
  review: Done | null;
  /** Work is shared with a partner, so that everybody's own is told. */
  shared: boolean;
}

const percent = (share: number): string => `${Math.round(100 * share)} %`;
/** A fade is worth a word when it is this much beyond what was expected. Own setting. */
const BEYOND = 0.1;

/** Plan and done, side by side. */
export function Sums({ plan, done, review, shared }: Props) {
  const load = (rpe: number, seconds: number) => String(Math.round((rpe * seconds) / 60));
  const told = (review?.fades ?? []).filter((each) => each.measured !== null);
  const past = told.filter((each) => (each.measured ?? 0) > each.expected + BEYOND);
  return (
    <>
      <table className="mt-1 w-full">
        <thead className="label-text text-left">
          <tr>
            <th />
            <th className="text-right">plan</th>
            <th className="text-right">done</th>
          </tr>
        </thead>
        <tbody>
          <Row name="Time" plan={clock(plan.total_s)} done={clock(done.played_s)} />
          {shared && review && <Row name="Own work" plan={clock(review.planned_work_s)} done={clock(review.work_s)} />}
          {shared && review && <Row name="Own rest" plan={clock(review.planned_rest_s)} done={clock(review.rest_s)} />}
          <Row name="Efforts" plan={String(plan.efforts)} done={String(done.efforts)} />
          <Row
            name="Strikes"
            plan={`about ${Math.round(plan.strikes)}`}
            done={done.strikes === null ? "not counted" : String(done.strikes)}
          />
          <Row name="RPE" plan={String(Math.round(plan.rpe))} done={done.rpe === null ? "to pick" : String(done.rpe)} />
          <Row
            name="Load, RPE × min"
            plan={load(plan.rpe, plan.total_s)}
            done={done.rpe === null ? "to pick" : load(done.rpe, done.played_s)}
          />
          {review?.peak_bpm != null && <Row name="Peak heart rate" plan="" done={String(review.peak_bpm)} />}
          {told.map((each) => (
            <Row
              key={each.part}
              name={`Fade, ${plan.names[each.part] ?? ""}`}
              plan={percent(each.expected)}
              done={percent(each.measured ?? 0)}
            />
          ))}
        </tbody>
      </table>
      {past.map((each) => (
        <p key={each.part} className="pt-2 text-[13px]">
          <span className="seal">Fade</span> {percent(each.measured ?? 0)} from the first third of {each.rounds} rounds
          to the last; the model expects about {percent(each.expected)}.
        </p>
      ))}
      {(review?.strap_off_s ?? 0) >= 10 && (
        <p className="quiet pt-2 text-[13px]">The strap told nothing for {clock(review?.strap_off_s ?? 0)}.</p>
      )}
    </>
  );
}

function Row({ name, plan, done }: { name: string; plan: string; done: string }) {
  return (
    <tr className="border-t border-[var(--rule)]">
      <th className="py-[6px] text-left font-normal">{name}</th>
      <td className="quiet text-right">{plan}</td>
      <td className="text-right font-semibold">{done}</td>
    </tr>
  );
}
