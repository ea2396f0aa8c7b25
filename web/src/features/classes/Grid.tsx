import { clock } from "../../domain/time";
import { ClassScore } from "./ClassScore";
import { type Answer, isOff, type Kept, kindOf } from "./plan";

interface Props {
  kept: Kept;
  answer: Answer;
  chosen: number;
  wave: number;
  onChoose: (place: number, wave?: number) => void;
  onOpen: (place: number, wave: number) => void;
}

/** Who is where: a row for each person, a column for each wave, with the score of the wave over it. */
export function Grid({ kept, answer, chosen, wave, onChoose, onOpen }: Props) {
  const { people, waves } = answer;
  const [before, after] = [answer.frames.find((f) => f.start_s === 0), answer.frames.find((f) => f.start_s > 0)];
  const put = new Map((kept.asked.put ?? []).map((each) => [`${each.uid} ${each.wave}`, each.at]));
  const sealed = new Map<string, string>();
  for (const each of answer.minded) if (!sealed.has(each.name)) sealed.set(each.name, each.seal);
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys
    // biome-ignore lint/a11y/useSemanticElements: a region that scrolls is no section of its own
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Who is where">
      <table className="w-full border-collapse text-left text-[13px] leading-[16px]">
        <thead>
          <tr className="align-bottom">
            <th scope="col" className="sticky left-0 z-[1] min-w-[112px] bg-[var(--paper)] pb-1 font-normal">
              <span className="sr-only">Person</span>
            </th>
            {before && <FrameHead frame={before} answer={answer} />}
            {waves.map((each) => (
              <th
                key={each.number}
                scope="col"
                className={`min-w-[62px] px-[2px] pb-1 font-normal ${each.number === wave ? "border-b-2 border-[var(--ink)]" : ""}`}
              >
                <span className="block font-[family-name:var(--font-head)] text-[14px] font-bold whitespace-nowrap">
                  Wave {each.number}
                </span>
                <span className="quiet block text-[12px] whitespace-nowrap">
                  {each.number === 1
                    ? `each ${clock(answer.wave_s)}`
                    : each.number === 2 && answer.change_s
                      ? `change ${clock(answer.change_s)}`
                      : "\u00a0"}
                </span>
                <ClassScore
                  answer={answer}
                  height={44}
                  from={each.start_s}
                  to={each.end_s}
                  label={`Wave ${each.number}, as it is done at the gear`}
                />
                <span className="quiet block text-[12px]">{clock(each.start_s)}</span>
              </th>
            ))}
            {after && <FrameHead frame={after} answer={answer} />}
            {["bag", "pads", off(answer), "idle"].map((each) => (
              <th key={each} scope="col" className="quiet w-[38px] pb-1 pl-2 text-right text-[12px] font-semibold">
                {each}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {people.map((each, place) => {
            const first = place === 0 || people[place - 1]?.label !== each.label;
            const comer = kept.asked.people[place];
            const seal = sealed.get(each.name);
            const line = first ? "border-t border-[var(--rule)]" : "";
            return (
              <tr
                key={comer?.uid ?? place}
                aria-current={place === chosen ? "true" : undefined}
                className={place === chosen ? "bg-[var(--sheet)]" : ""}
              >
                <th
                  scope="row"
                  className={`sticky left-0 z-[1] max-w-[150px] py-[2px] pr-1 font-normal ${line} ${
                    place === chosen ? "bg-[var(--sheet)] shadow-[inset_3px_0_0_var(--ink)]" : "bg-[var(--paper)]"
                  }`}
                >
                  <button
                    type="button"
                    className="flex min-h-[24px] w-full cursor-pointer items-center justify-between gap-1 pl-[6px] text-left max-[899px]:min-h-[44px]"
                    onClick={() => onChoose(place)}
                    onDoubleClick={() => onOpen(place, wave)}
                  >
                    <span className={`truncate ${seal ? "font-semibold" : ""}`} title={each.name}>
                      {each.name}
                    </span>
                    {seal ? (
                      <span className="seal">{seal}</span>
                    ) : (
                      <span className="quiet text-[11px]">{each.label === each.name ? "" : each.label}</span>
                    )}
                  </button>
                </th>
                {before && <td className={`px-[2px] py-[2px] ${line}`}>{<FrameCell hatched={false} />}</td>}
                {each.row.map((station, at) => (
                  <td key={`${waves[at]?.number}`} className={`px-[2px] py-[2px] ${line}`}>
                    <button
                      type="button"
                      className="block w-full cursor-pointer"
                      aria-label={`${each.name}, wave ${at + 1}: ${spoken(station)}${comer && put.has(`${comer.uid} ${at + 1}`) ? ", put there" : ""}`}
                      onClick={() => onOpen(place, at + 1)}
                    >
                      <Cell
                        station={station}
                        holds={each.holds}
                        put={comer ? put.has(`${comer.uid} ${at + 1}`) : false}
                        here={place === chosen && at + 1 === wave}
                      />
                    </button>
                  </td>
                ))}
                {after && <td className={`px-[2px] py-[2px] ${line}`}>{<FrameCell hatched />}</td>}
                {[each.bag, each.pads, each.floor].map((turns, at) => (
                  <td key={["bag", "pads", "floor"][at]} className={`pl-2 text-right ${line}`}>
                    {turns}
                  </td>
                ))}
                <td className={`pl-2 text-right font-semibold ${line}`}>{clock(each.idle_s)}</td>
              </tr>
            );
          })}
        </tbody>
        <tfoot className="border-t border-[var(--ink)]">
          <Foot name="Bags in use" answer={answer} shown={(each) => `${each.bags} of ${kept.asked.bags}`} />
          <Foot name="Pairs at pads" answer={answer} shown={(each) => String(each.pad_pairs)} />
          <Foot name="Waiting" answer={answer} shown={(each) => String(each.waiting)} />
        </tfoot>
      </table>
    </div>
  );
}

const off = (answer: Answer) => (answer.school === "circuit" ? "off" : "floor");

/** A station as it is read out. */
export function spoken(station: string): string {
  if (station === "away") return "not there";
  if (station === "wait") return "waits";
  if (station.endsWith(" hit")) return `${station.slice(0, -4)}, hits first`;
  if (station.endsWith(" hold")) return `${station.slice(0, -5)}, holds first`;
  return station;
}

function FrameHead({ frame, answer }: { frame: Answer["frames"][number]; answer: Answer }) {
  return (
    <th scope="col" className="min-w-[58px] px-[2px] pb-1 font-normal">
      <span className="block font-[family-name:var(--font-head)] text-[14px] font-bold">{frame.name}</span>
      <span className="quiet block text-[12px]">{clock(frame.seconds)}</span>
      <ClassScore answer={answer} height={44} from={frame.start_s} to={frame.start_s + frame.seconds} />
      <span className="quiet block text-[12px]">{clock(frame.start_s)}</span>
    </th>
  );
}

function FrameCell({ hatched }: { hatched: boolean }) {
  return (
    <span
      aria-hidden="true"
      className={`block h-[24px] border border-[var(--rule-2)] ${hatched ? "hatched" : "bg-[var(--rule)]"}`}
    />
  );
}

const CELL = "flex h-[24px] items-center justify-center overflow-hidden text-[12px] font-semibold whitespace-nowrap";

/** Where somebody is in a wave: ink for a bag, halves for pads, dots off the bag. */
function Cell({ station, holds, put, here }: { station: string; holds: boolean; put: boolean; here: boolean }) {
  const kind = kindOf(station);
  const ring = `${put ? "border-b-[4px] border-b-[var(--vermilion)]" : ""} ${here ? "outline-2 outline-offset-1 outline-[var(--ink)]" : ""}`;
  const number = station.split(" ")[1];
  if (kind === "bag") {
    return (
      <span className={`${CELL} border border-[var(--ink)] bg-[var(--ink)] text-[var(--sheet)] ${ring} `}>
        {station}
      </span>
    );
  }
  if (kind === "pads") {
    const hit = (
      <span key="hit" className="flex h-full flex-1 items-center justify-center bg-[#3b4663] text-[var(--sheet)]">
        hit
      </span>
    );
    const hold = (
      <span key="hold" className="flex h-full flex-1 items-center justify-center bg-[var(--sheet)]">
        {holds ? "hold" : "easy"}
      </span>
    );
    return (
      <span className={`${CELL} relative border border-[var(--ink)] ${ring} `} title={`pads ${number}`}>
        {station.endsWith("hit") ? [hit, hold] : [hold, hit]}
      </span>
    );
  }
  if (kind === "wait") {
    return (
      <span className={`${CELL} border border-dashed border-[var(--vermilion)] text-[var(--vermilion)] ${ring}`}>
        waits
      </span>
    );
  }
  if (kind === "away") return <span className={`${CELL} quiet font-normal ${ring}`}>–</span>;
  if (isOff(kind)) {
    return (
      <span className={`${CELL} dots border border-[var(--ink)] ${ring}`}>
        <span className="max-w-full truncate bg-[var(--paper)] px-1">{station}</span>
      </span>
    );
  }
  return <span className={`${CELL} border-2 border-[var(--ink)] ${ring}`}>{station}</span>;
}

interface FootProps {
  name: string;
  answer: Answer;
  shown: (wave: Answer["waves"][number]) => string;
}

function Foot({ name, answer, shown }: FootProps) {
  const frames = answer.frames.filter((each) => each.start_s === 0).length;
  return (
    <tr>
      <th scope="row" className="sticky left-0 bg-[var(--paper)] py-[2px] whitespace-nowrap">
        {name}
      </th>
      {frames > 0 && <td />}
      {answer.waves.map((each) => (
        <td key={each.number} className="text-center">
          {shown(each)}
        </td>
      ))}
    </tr>
  );
}
