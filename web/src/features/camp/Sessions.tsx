import { useDraggable, useDroppable } from "@dnd-kit/core";
import { memo } from "react";
import { MarkShape } from "./Marks";
import { dayAfter, daysOf, markOf, type Placed, shortDay, type Week, weekdayOf } from "./plan";

const TALL_PX = 92;
const LETTERS = { mon: "M", tue: "T", wed: "W", thu: "T", fri: "F", sat: "S", sun: "S" };

interface SessionsProps {
  week: Week;
  held: Placed[];
  /** Days of the week on which there may be training, or something is fixed. */
  open: string[];
  today: string;
  shut: string | null;
  most: number;
  onOpen: (uid: string) => void;
}

/** Drawn again only where what it draws is another: a change of one week leaves the others alone. */
export const Sessions = memo(function Sessions({ week, held, open, today, shut, most, onOpen }: SessionsProps) {
  const first = shut === null ? null : dayAfter(shut, 1);
  return (
    <div
      aria-hidden="true"
      className={`ink-t relative border-l border-[var(--rule)] pt-2 ${week.phase === "ease" ? "bg-[var(--ease)]" : ""}`}
    >
      <div className="grid grid-cols-7">
        {daysOf(week).map((day) => (
          <Day
            key={day}
            day={day}
            held={held.filter((each) => each.on === day)}
            open={open.includes(day)}
            now={day === today}
            closed={first !== null && day >= first}
            first={day === first}
            most={most}
            onOpen={onOpen}
          />
        ))}
      </div>
      {first !== null && week.first <= first && first <= week.last && (
        <p className="pointer-events-none absolute top-1 right-1 text-right text-[11px] leading-[13px]">
          <span className="seal">Closed</span>
          <br />
          to lactic work
        </p>
      )}
    </div>
  );
}, alike);

/** Whether two draw the same. What they call is the same all along. */
function alike(one: object, two: object): boolean {
  return JSON.stringify(one) === JSON.stringify(two);
}

interface DayProps {
  day: string;
  held: Placed[];
  open: boolean;
  now: boolean;
  closed: boolean;
  /** The first day that is shut to lactic work. */
  first: boolean;
  most: number;
  onOpen: (uid: string) => void;
}

function Day({ day, held, open, now, closed, first, most, onOpen }: DayProps) {
  const { setNodeRef, isOver } = useDroppable({ id: day });
  return (
    <div
      ref={setNodeRef}
      className={`min-w-0 ${first ? "border-l-2 border-l-[var(--vermilion)]" : ""} ${isOver ? "bg-[rgb(31_42_68/12%)]" : ""} ${closed ? "hatched" : ""}`}
    >
      <div
        className="flex items-end justify-center gap-px border-b border-[var(--ink)]"
        style={{ height: TALL_PX + 22 }}
      >
        {held.map((each) => (
          <Piece key={each.uid} placed={each} most={most} onOpen={onOpen} />
        ))}
      </div>
      <p
        className={`py-[2px] text-center text-[11px] leading-4 ${open ? "" : "text-[var(--rule-2)]"} ${
          now ? "bg-[var(--ink)] font-semibold text-[var(--sheet)]" : ""
        }`}
      >
        {LETTERS[weekdayOf(day)]}
      </p>
    </div>
  );
}

/** A session as height of load, dragged to another day. Its row in the week below says all of it, for keys and fingers. */
function Piece({ placed, most, onOpen }: { placed: Placed; most: number; onOpen: (uid: string) => void }) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: placed.uid,
    disabled: placed.done !== null,
  });
  const mark = markOf(placed.purpose);
  const height = Math.max(10, (placed.load / most) * TALL_PX);
  const skill = placed.purpose === "skill";
  const fill = placed.done
    ? skill
      ? "dots bg-[var(--wash)]"
      : "bg-[var(--ink)]"
    : skill
      ? "dots"
      : "bg-[var(--sheet)]";
  const over = placed.missed || placed.skipped ? "border-dashed opacity-60" : "";
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the drawing is for the pointer; the week below has the buttons
    // biome-ignore lint/a11y/useKeyWithClickEvents: the same
    <div
      ref={setNodeRef}
      {...listeners}
      data-piece={placed.uid}
      title={`${placed.word}, ${shortDay(placed.on)}: ${placed.knob}`}
      className="relative flex w-full max-w-[16px] min-w-[6px] cursor-grab touch-none flex-col items-center justify-end"
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 } : undefined}
      onClick={() => !isDragging && onOpen(placed.uid)}
    >
      <span className="mb-[3px]">
        <MarkShape mark={mark} size={11} />
      </span>
      <span
        className={`block w-full border border-[var(--ink)] ${fill} ${over} ${placed.locked ? "border-b-[4px]" : "border-b-0"}`}
        style={{ height }}
      />
    </div>
  );
}
