import { whole } from "../../domain/figures";
import { useKeys, WEEK } from "../../ui/keymap";
import { LIMBS } from "../../ui/Strikes";
import { MARK_WORDS, MarkShape } from "./Marks";
import { type Camp, dayAfter, daysOf, isOpen, ladderOf, markOf, type Placed, shortDay, type Week } from "./plan";

interface Props {
  camp: Camp;
  week: Week;
  chosen: string | null;
  onChoose: (uid: string) => void;
  onOpen: (uid: string) => void;
  onAdd: (on: string) => void;
  onMove: (uid: string, on: string) => void;
  onTurn: (uid: string, by: 1 | -1) => void;
  onLock: (uid: string) => void;
  onDrop: (uid: string) => void;
  onWeek: (number: number) => void;
}

/** A week of a camp, day by day, in words: every session is a button, and the arrow keys move it. */
export function WeekPanel(props: Props) {
  const { camp, week, chosen, onWeek } = props;
  const one = camp.placed.find((each) => each.uid === chosen);
  const act = (does: (placed: Placed) => void) => () => (one && !one.done ? does(one) : false);
  const move = (by: number) =>
    act(({ uid, on }) => {
      const to = dayAfter(on, by);
      if (to >= camp.asked.start && to <= camp.last) props.onMove(uid, to);
    });
  useKeys(WEEK, {
    earlier: move(-1),
    later: move(1),
    harder: act(({ uid }) => props.onTurn(uid, 1)),
    easier: act(({ uid }) => props.onTurn(uid, -1)),
    lock: act(({ uid }) => props.onLock(uid)),
    remove: act(({ uid }) => props.onDrop(uid)),
    before: () => onWeek(Math.max(1, week.number - 1)),
    next: () => onWeek(Math.min(camp.weeks.length, week.number + 1)),
  });
  return (
    <section aria-label={`Week ${week.number}`} className="ink-t mt-4 pt-2">
      <div className="flex flex-wrap items-center gap-3 pb-2">
        <h2>
          Week {week.number}
          <span className="quiet text-[14px] font-normal">
            {" "}
            {shortDay(week.first)} to {shortDay(week.last)}, load {whole(week.load)}
          </span>
        </h2>
        <span className="flex gap-2 print:hidden">
          <button type="button" className="act" disabled={week.number === 1} onClick={() => onWeek(week.number - 1)}>
            <span>
              Week <u>b</u>efore
            </span>
          </button>
          <button
            type="button"
            className="act"
            disabled={week.number === camp.weeks.length}
            onClick={() => onWeek(week.number + 1)}
          >
            <span>
              <u>N</u>ext week
            </span>
          </button>
        </span>
      </div>
      <p className="quiet pb-2 text-[13px]">
        About {LIMBS.map((limb) => `${whole(week.limbs[limb] ?? 0)} strikes with the ${limb}`).join(", ")}.{" "}
        {week.turned.length
          ? `Turned on: ${week.turned.map((each) => ladderOf(camp, each)?.word ?? each).join(", ")}.`
          : "No knob is turned."}
      </p>
      <ul className="grid gap-x-3 min-[900px]:grid-cols-7">
        {daysOf(week).map((day) => (
          <DayRow key={day} day={day} {...props} />
        ))}
      </ul>
    </section>
  );
}

function DayRow({ camp, day, chosen, onChoose, onOpen, onAdd }: Props & { day: string }) {
  const held = camp.placed.filter((each) => each.on === day);
  const travels = camp.fixtures.some(({ on, purpose }) => on === day && purpose === "travel");
  const open = isOpen(camp, day);
  return (
    <li
      className={`rule-t py-2 max-[899px]:grid max-[899px]:grid-cols-[86px_1fr] max-[899px]:gap-2 ${open || held.length ? "" : "quiet"}`}
    >
      <p
        className={`text-[13px] ${day === camp.today ? "font-semibold underline decoration-2 underline-offset-4" : ""}`}
      >
        {shortDay(day)}
        {travels && <span className="quiet block text-[12px]">travel</span>}
      </p>
      <div className="grid content-start gap-2">
        {held.map((each) => (
          <PieceRow key={each.uid} placed={each} chosen={each.uid === chosen} onChoose={onChoose} onOpen={onOpen} />
        ))}
        {held.length < 2 && (
          <button
            type="button"
            aria-label={`Add a session on ${shortDay(day)}`}
            className="link quiet min-h-[30px] justify-self-start text-[13px] max-[899px]:min-h-[44px] print:hidden"
            onClick={() => onAdd(day)}
          >
            Add
          </button>
        )}
      </div>
    </li>
  );
}

function PieceRow({
  placed,
  chosen,
  onChoose,
  onOpen,
}: {
  placed: Placed;
  chosen: boolean;
  onChoose: (uid: string) => void;
  onOpen: (uid: string) => void;
}) {
  const mark = markOf(placed.purpose);
  const states = [
    placed.done && `done, effort ${Math.round(placed.done.rpe)}`,
    placed.done?.too_hard && "too hard",
    placed.skipped && "let go",
    placed.locked && "locked",
    placed.edited && "changed on the Bench",
    placed.lactic && "lactic",
  ].filter(Boolean);
  return (
    <button
      type="button"
      data-uid={placed.uid}
      className={`min-h-[44px] cursor-pointer border px-2 py-1 text-left hover:bg-[#E9E3D5] ${
        placed.done ? "border-[var(--ink)] bg-[var(--wash)]" : "border-[var(--ink)] bg-[var(--sheet)]"
      } ${placed.missed || placed.skipped ? "border-dashed" : ""} ${chosen ? "outline-2 outline-offset-1 outline-[var(--ink)]" : ""}`}
      onFocus={() => onChoose(placed.uid)}
      onClick={() => onOpen(placed.uid)}
    >
      <span className="flex items-center gap-[6px] text-[13px] font-semibold">
        <MarkShape mark={mark} />
        <span className="first-letter:uppercase">{placed.word}</span>
        {mark && <span className="sr-only">, {MARK_WORDS[mark]}</span>}
        {placed.missed && <span className="seal">Missed</span>}
      </span>
      <span className="block text-[12px] leading-4">{placed.knob}</span>
      <span className="quiet block text-[12px] leading-4">
        {placed.minutes} min, load {whole(placed.load)}
        {states.length > 0 && `, ${states.join(", ")}`}
      </span>
    </button>
  );
}
