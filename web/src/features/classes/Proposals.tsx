import { whole } from "../../domain/figures";
import { clock } from "../../domain/time";
import { Tally } from "../../ui/Tally";
import { ClassScore } from "./ClassScore";
import { type Answer, between, spread } from "./plan";

interface Props {
  found: Answer[];
  /** Of each, once all are there. */
  tradeoffs: string[];
  leftOut: string[];
  busy: boolean;
  onTake: (answer: Answer) => void;
}

/** Whole classes of different schools, under each other on one time axis, with what each costs and gains. */
export function Proposals({ found, tradeoffs, leftOut, busy, onTake }: Props) {
  const longest = Math.max(...found.map((each) => each.total_s));
  return (
    <section aria-label="Proposed classes">
      <ol className="ink-t">
        {found.map((each, at) => (
          <li
            key={each.school}
            className="rule-t grid gap-x-5 gap-y-2 py-3 first:border-t-0 min-[900px]:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)_auto]"
          >
            <div>
              <h3>{each.school_name}</h3>
              <p className="text-[13px] leading-[17px]">
                {each.waves.length} waves of {clock(each.wave_s)}: <b>{each.pattern}</b>
                {each.change_s ? `, change ${clock(each.change_s)}` : ""}, {clock(each.total_s)} in all
              </p>
              <div style={{ width: `${(100 * each.total_s) / longest}%` }} className="pt-1">
                <ClassScore answer={each} height={46} />
              </div>
              <p className="pt-1 text-[13px] leading-[17px]">{figuresOf(each)}</p>
              <p className="quiet pt-1 text-[13px] leading-[17px]">{tradeoffs[at] ?? each.reason}</p>
            </div>
            <div className="text-[13px] leading-[17px]">
              <p>
                <b>{each.sharing.word}.</b> {each.sharing.sentence}
              </p>
              <Trains answer={each} />
              {each.short && (
                <p className="pt-1">
                  <span className="seal">Short</span> {each.short} {each.cure}
                </p>
              )}
            </div>
            <p className="flex items-start min-[900px]:justify-end">
              <button
                type="button"
                className="act main"
                disabled={busy}
                aria-label={`Take ${each.school_name}`}
                onClick={() => onTake(each)}
              >
                {busy ? "Keeping …" : "Take it"}
              </button>
            </p>
          </li>
        ))}
      </ol>
      {leftOut.map((each) => (
        <p key={each} className="quiet rule-t py-2 text-[13px]">
          <span className="seal light">Without</span> {each}
        </p>
      ))}
    </section>
  );
}

/** What each of them gets, from least to most. */
function figuresOf({ people }: Answer): string {
  const there = people.filter((each) => each.moving_s > 0);
  if (there.length === 0) return "";
  const times = (of: (one: Answer["people"][number]) => number) => spread(there.map(of));
  const counts = (of: (one: Answer["people"][number]) => number) => between(there.map(of));
  return `Each works ${times((one) => one.work_s)}, rests ${times((one) => one.rest_s)}, is idle ${times((one) => one.idle_s)}; load about ${counts((one) => one.load)}, ${counts((one) => one.strikes)} strikes.`;
}

/** What a class trains for the weakest, the middle and the strongest of the group. */
export function Trains({ answer }: { answer: Answer }) {
  return (
    <table className="mt-1 w-full text-left text-[13px] leading-[17px]">
      <caption className="quiet pb-1 text-left text-[12px]">For {answer.target_name}</caption>
      <tbody>
        {answer.trains.map((each) => (
          <tr key={each.which} className="rule-t align-top">
            <th scope="row" className="py-1 pr-2 font-normal">
              <b>{each.which}</b>
              <span className="quiet block text-[12px]">{each.who}</span>
            </th>
            <td className="w-[40px] py-1">
              <Tally strokes={each.strokes} label={`${each.strokes} of 5: ${each.grade}`} />
            </td>
            <td className="py-1 pl-2">
              {each.grade}
              <span className="quiet block text-[12px]">
                load about {whole(each.load)}, {whole(each.strikes)} strikes
              </span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
