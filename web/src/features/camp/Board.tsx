import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { whole } from "../../domain/figures";
import { LIMBS } from "../../ui/Strikes";
import { type Camp, dayAndMonth, daysOf, isOpen, lead, type Placed, shortDay, type Week, weekOf } from "./plan";
import { Sessions } from "./Sessions";

const PHASES: Record<Week["phase"], string> = {
  build: "Build",
  press: "Press",
  ease: "Ease",
  sharpen: "Sharpen",
  fresh: "Fresh",
};
const LOAD_PX = 56;
const LABELS = "min-w-0 py-2 pr-2";

interface Props {
  camp: Camp;
  chosenWeek: number;
  onWeek: (number: number) => void;
  onOpen: (uid: string) => void;
  onMove: (uid: string, on: string) => void;
}

/** The score of a camp: a column a week, sessions as height of load, what knobs do, strikes of each limb, load. */
export function Board({ camp, chosenWeek, onWeek, onOpen, onMove }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const onDragEnd = ({ active, over }: DragEndEvent) => over && onMove(String(active.id), String(over.id));
  const most = Math.max(1, ...camp.placed.map((each) => each.load));
  const mostLoad = Math.max(1, ...camp.weeks.map((week) => week.load));
  const mostStrikes = Math.max(1, ...camp.weeks.flatMap((week) => LIMBS.map((limb) => week.limbs[limb] ?? 0)));
  const leading = lead(camp);
  return (
    <DndContext sensors={sensors} onDragEnd={onDragEnd}>
      <section aria-label="Weeks" className="overflow-x-auto">
        <div
          className={`grid min-w-[980px] print:min-w-0 ${camp.asked.bout_on ? "border-r-[5px] border-r-[var(--ink)]" : ""}`}
          style={{ gridTemplateColumns: `116px repeat(${camp.weeks.length}, minmax(88px, 1fr))` }}
        >
          <span />
          {camp.weeks.map((week) => (
            <WeekHead key={week.number} camp={camp} week={week} chosen={week.number === chosenWeek} onWeek={onWeek} />
          ))}
          <Label name="Sessions" about="height is load" />
          {camp.weeks.map((week) => (
            <Sessions
              key={week.number}
              week={week}
              held={ofWeek(camp, week)}
              open={daysOf(week).filter((day) => isOpen(camp, day) || camp.fixtures.some(({ on }) => on === day))}
              today={camp.today}
              shut={camp.lactic_until}
              most={most}
              onOpen={onOpen}
            />
          ))}
          {leading && (
            <>
              <Label name={leading.word} about="rounds" capital />
              {camp.weeks.map((week) => (
                <Rounds
                  key={week.number}
                  held={ofWeek(camp, week).filter((each) => each.purpose === leading.purpose)}
                  camp={camp}
                  week={week}
                />
              ))}
              <Label name="Rest between" about="seconds" />
              {camp.weeks.map((week, index) => (
                <Rest
                  key={week.number}
                  camp={camp}
                  week={week}
                  purpose={leading.purpose}
                  before={camp.weeks[index - 1]}
                />
              ))}
            </>
          )}
          <Label name="Knob" about="turned in the week" />
          {camp.weeks.map((week) => (
            <p
              key={week.number}
              className={`rule-t border-l border-[var(--rule)] px-2 py-2 text-[12px] leading-4 ${ease(week)}`}
            >
              {week.turned.length ? (
                week.turned.map((each) => wordOf(camp, each)).join(", ")
              ) : (
                <span className="quiet">none</span>
              )}
            </p>
          ))}
          <div className={`${LABELS} rule-t`}>
            {LIMBS.map((limb, index) => (
              <p key={limb} className="flex h-[24px] items-center justify-between text-[13px]">
                {limb.replace(/^./, (first) => first.toUpperCase())}
                {index === 0 && <span className="quiet text-[12px]">strikes</span>}
              </p>
            ))}
          </div>
          {camp.weeks.map((week) => (
            <div key={week.number} className={`rule-t border-l border-[var(--rule)] px-2 py-2 ${ease(week)}`}>
              {LIMBS.map((limb) => (
                <Bar key={limb} all={week.limbs[limb] ?? 0} done={week.done_limbs[limb] ?? 0} most={mostStrikes} />
              ))}
            </div>
          ))}
          <Label name="Load" about="rating × minutes" />
          {camp.weeks.map((week, index) => (
            <Load key={week.number} week={week} before={camp.weeks[index - 1]} most={mostLoad} />
          ))}
        </div>
      </section>
    </DndContext>
  );
}

const ofWeek = (camp: Camp, week: Week): Placed[] =>
  camp.placed.filter((each) => week.first <= each.on && each.on <= week.last);
const ease = (week: Week) => (week.phase === "ease" ? "bg-[var(--ease)]" : "");
const wordOf = (camp: Camp, purpose: string) =>
  camp.ladders.find((ladder) => ladder.purpose === purpose)?.word ?? purpose.replaceAll("-", " ");

function Label({ name, about, capital = false }: { name: string; about: string; capital?: boolean }) {
  return (
    <div className={`${LABELS} rule-t`}>
      <p className={`text-[13px] font-semibold ${capital ? "first-letter:uppercase" : ""}`}>{name}</p>
      <p className="quiet text-[12px] leading-4">{about}</p>
    </div>
  );
}

function WeekHead({
  camp,
  week,
  chosen,
  onWeek,
}: {
  camp: Camp;
  week: Week;
  chosen: boolean;
  onWeek: (n: number) => void;
}) {
  const now = weekOf(camp, camp.today)?.number === week.number;
  const last = week.number === camp.weeks.length && camp.asked.bout_on;
  return (
    <button
      type="button"
      aria-pressed={chosen}
      aria-label={`Week ${week.number}, ${PHASES[week.phase]}, from ${dayAndMonth(week.first)}${now ? ", now" : ""}`}
      className={`min-h-[44px] cursor-pointer border-l border-[var(--rule)] px-2 pb-1 text-left hover:bg-[#E9E3D5] ${ease(week)} ${
        chosen ? "border-t-[3px] border-t-[var(--ink)]" : "border-t-[3px] border-t-transparent"
      }`}
      onClick={() => onWeek(week.number)}
    >
      <span className="flex items-baseline gap-2">
        <b
          className={`font-[var(--font-head)] text-[16px] ${now ? "bg-[var(--ink)] px-[5px] text-[var(--sheet)]" : ""}`}
        >
          {week.number}
        </b>
        <span className="text-[13px] font-semibold">{PHASES[week.phase]}</span>
      </span>
      <span className="quiet block text-[12px]">
        {last ? `Bout ${shortDay(camp.asked.bout_on ?? "")}` : dayAndMonth(week.first)}
      </span>
    </button>
  );
}

function Rounds({ camp, week, held }: { camp: Camp; week: Week; held: Placed[] }) {
  const [one] = held;
  const step =
    one && one.step !== null ? camp.ladders.find((each) => each.purpose === one.purpose)?.steps[one.step] : undefined;
  const share = one?.size === "half" ? 0.5 : one?.size === "two thirds" ? 2 / 3 : 1;
  const rounds = step ? Math.max(1, Math.floor(step.rounds * share + 1e-9)) : 0;
  return (
    <div className={`rule-t border-l border-[var(--rule)] px-2 py-2 ${ease(week)}`}>
      {one ? (
        <p className="flex items-center gap-[3px] text-[12px]">
          <span aria-hidden="true" className="flex flex-wrap gap-[2px]">
            {Array.from({ length: Math.min(rounds, 8) }, (_, index) => `round ${index}`).map((key) => (
              <span
                key={key}
                className={`block h-[16px] w-[8px] border border-[var(--ink)] ${one.done ? "bg-[var(--ink)]" : ""}`}
              />
            ))}
          </span>
          <b className="pl-1">{rounds || "own"}</b>
        </p>
      ) : (
        <span className="quiet text-[12px]">none</span>
      )}
    </div>
  );
}

function Rest({ camp, week, purpose, before }: { camp: Camp; week: Week; purpose: string; before: Week | undefined }) {
  const restOf = (of: Week | undefined) => {
    const one = of && ofWeek(camp, of).find((each) => each.purpose === purpose && each.step !== null);
    return one && one.step !== null
      ? camp.ladders.find((each) => each.purpose === purpose)?.steps[one.step]?.rest_s
      : undefined;
  };
  const [now, was] = [restOf(week), restOf(before)];
  return (
    <div className={`rule-t border-l border-[var(--rule)] px-2 py-1 ${ease(week)}`}>
      {now === undefined ? (
        <span className="quiet text-[12px]">none</span>
      ) : (
        <span className={`font-[var(--font-head)] text-[20px] leading-7 ${now !== was ? "font-bold" : "font-normal"}`}>
          {now}
        </span>
      )}
    </div>
  );
}

function Bar({ all, done, most }: { all: number; done: number; most: number }) {
  return (
    <p className="flex h-[24px] items-center gap-2 text-[12px]">
      {all > 0 && (
        <span
          aria-hidden="true"
          className="relative block h-[12px] border border-[var(--ink)]"
          style={{ width: `${Math.max(3, (52 * all) / most)}%` }}
        >
          <span
            className="absolute inset-y-0 left-0 bg-[var(--ink)]"
            style={{ width: `${all ? (100 * done) / all : 0}%` }}
          />
        </span>
      )}
      {whole(all)}
    </p>
  );
}

function Load({ week, before, most }: { week: Week; before: Week | undefined; most: number }) {
  const change = before?.load ? Math.round(100 * (week.load / before.load - 1)) : null;
  const height = (week.load / most) * LOAD_PX;
  return (
    <div className={`rule-t border-l border-[var(--rule)] px-2 pt-2 ${ease(week)}`}>
      <div className="flex items-end gap-1 border-b border-[var(--ink)]" style={{ height: LOAD_PX + 20 }}>
        <div className="w-[64%]">
          <p className="text-[13px] font-semibold">{whole(week.load)}</p>
          <div className="relative border border-b-0 border-[var(--ink)]" style={{ height }}>
            <div
              className="absolute inset-x-0 bottom-0 bg-[var(--ink)]"
              style={{ height: `${week.load ? (100 * week.done_load) / week.load : 0}%` }}
            />
          </div>
        </div>
        {change !== null && (
          <span className="quiet pb-[2px] text-[12px]">
            {change > 0 ? "+" : change < 0 ? "−" : "±"}
            {Math.abs(change)}%
          </span>
        )}
      </div>
    </div>
  );
}
