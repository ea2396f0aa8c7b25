/** A camp's plan as a coach pushes it about: what is sent, what it costs at once, and where things can go. */

import type { Schemas } from "../../api/client";

export type Camp = Schemas["CampOut"];
export type Placed = Schemas["PlacedOut"];
export type Told = Schemas["PlacedIn"];
export type Ladder = Schemas["LadderOut"];
export type Week = Schemas["WeekAnswer"];

/** All that a change is made of; one of them is undone at once. */
export interface State {
  asked: Schemas["AskedIn"];
  placed: Told[];
  hold: Schemas["Hold"][];
}

const MS_A_DAY = 86_400_000;
const WEEKDAYS = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"] as const;

export const noon = (day: string): Date => new Date(`${day}T12:00Z`);
export const dayAfter = (day: string, days: number): string =>
  new Date(noon(day).getTime() + days * MS_A_DAY).toISOString().slice(0, 10);
export const daysBetween = (first: string, last: string): number =>
  Math.round((noon(last).getTime() - noon(first).getTime()) / MS_A_DAY);
export const weekdayOf = (day: string) => WEEKDAYS[noon(day).getUTCDay()] ?? "mon";
export const daysOf = (week: Week): string[] =>
  Array.from({ length: daysBetween(week.first, week.last) + 1 }, (_, index) => dayAfter(week.first, index));
export const weekOf = (camp: Camp, day: string): Week | undefined =>
  camp.weeks.find((week) => week.first <= day && day <= week.last);

export const toldOf = ({ uid, on, order, purpose, step, size, locked, skipped }: Placed): Told => ({
  uid,
  on,
  order,
  purpose,
  step,
  size,
  locked,
  skipped,
  session_id: null,
});

export const stateOf = (camp: Camp): State => ({
  asked: camp.asked,
  placed: camp.placed.map(toldOf),
  hold: camp.hold,
});

export const ladderOf = (camp: Camp, purpose: string): Ladder | undefined =>
  camp.ladders.find((ladder) => ladder.purpose === purpose);

/** A session as it is told, in the shape in which it is drawn: what it costs is known from its ladder. */
function drawn(camp: Camp, told: Told, known: Placed | undefined): Placed {
  const ladder = ladderOf(camp, told.purpose);
  const step = told.step === null || told.step === undefined ? undefined : ladder?.steps[told.step];
  const size = told.size ?? "whole";
  const base: Placed = known ?? {
    uid: told.uid,
    on: told.on,
    order: 0,
    purpose: told.purpose,
    word: ladder?.word ?? told.purpose,
    step: null,
    size,
    knob: "a session of its own",
    locked: false,
    skipped: false,
    missed: false,
    edited: false,
    load: 0,
    planned_load: 0,
    rpe: 0,
    minutes: 0,
    limbs: {},
    lactic: false,
    hard: false,
    session_id: null,
    planned_id: null,
    done: null,
  };
  const missed = !base.done && !told.skipped && told.on < camp.today;
  const now = { ...base, ...told, word: ladder?.word ?? base.word, missed } as Placed;
  if (!step || base.done || base.edited) return now;
  return {
    ...now,
    knob: size === "whole" ? step.words : `${step.words}; ${size} of the rounds`,
    load: step.load[size] ?? 0,
    planned_load: step.load[size] ?? 0,
    minutes: step.minutes[size] ?? 0,
    lactic: step.lactic[size] ?? false,
    hard: step.hard[size] ?? false,
    limbs: step.limbs[size] ?? {},
  };
}

const counts = (placed: Placed): boolean => !placed.missed && !placed.skipped;

function sums(placed: Placed[]): { load: number; limbs: Record<string, number> } {
  const limbs: Record<string, number> = {};
  for (const each of placed)
    for (const [limb, strikes] of Object.entries(each.limbs)) limbs[limb] = (limbs[limb] ?? 0) + (strikes ?? 0);
  return { load: placed.reduce((sum, each) => sum + each.load, 0), limbs };
}

/** The camp as it is drawn while a change is on its way: all but what the rules say of it. */
export function withState(camp: Camp, state: State): Camp {
  const known = new Map(camp.placed.map((each) => [each.uid, each]));
  const placed = state.placed
    .map((told) => drawn(camp, told, known.get(told.uid)))
    .toSorted((one, two) => one.on.localeCompare(two.on) || one.order - two.order);
  const weeks = camp.weeks.map((week) => {
    const held = placed.filter((each) => week.first <= each.on && each.on <= week.last && counts(each));
    const all = sums(held);
    const done = sums(held.filter((each) => each.done));
    return { ...week, load: all.load, limbs: all.limbs, done_load: done.load, done_limbs: done.limbs };
  });
  return { ...camp, asked: state.asked, placed, hold: state.hold, weeks };
}

/** The state with one session changed. */
export function changed(state: State, uid: string, change: Partial<Told>): State {
  return { ...state, placed: state.placed.map((each) => (each.uid === uid ? { ...each, ...change } : each)) };
}

/** A session moved to a day; among others there it stands last, but that skill comes before hard work. */
export function moved(state: State, uid: string, on: string): State {
  const one = state.placed.find((each) => each.uid === uid);
  if (!one || one.on === on) return state;
  return inOrder(changed(state, uid, { on, order: 9 }), on);
}

/** Several of a day in their order: skill fresh, before the others. */
function inOrder(state: State, on: string): State {
  const there = state.placed
    .filter((each) => each.on === on)
    .toSorted(
      (one, two) =>
        Number(two.purpose === "skill") - Number(one.purpose === "skill") || (one.order ?? 0) - (two.order ?? 0),
    );
  const order = new Map(there.map((each, index) => [each.uid, index]));
  return { ...state, placed: state.placed.map((each) => ({ ...each, order: order.get(each.uid) ?? each.order ?? 0 })) };
}

export const without = (state: State, uid: string): State => ({
  ...state,
  placed: state.placed.filter((each) => each.uid !== uid),
});

export const added = (state: State, told: Told): State =>
  inOrder({ ...state, placed: [...state.placed, told] }, told.on);

/** The step that a purpose has reached by a day. */
export function reached(camp: Camp, purpose: string, by: string): number {
  const before = camp.placed.filter((each) => each.purpose === purpose && each.on <= by && each.step !== null);
  return before.length ? Math.max(...before.map((each) => each.step ?? 0)) : 0;
}

const travels = (camp: Camp, day: string): boolean =>
  camp.fixtures.some(({ on, purpose }) => on === day && purpose === "travel");

/** Whether there may be training on a day. */
export const isOpen = (camp: Camp, day: string): boolean =>
  camp.asked.days.some(({ weekday }) => weekday === weekdayOf(day)) && !travels(camp, day);

/** The next day from today on that is open and free; none where the camp has no more. */
export function nextFree(camp: Camp): string | null {
  const taken = new Set(camp.placed.map((each) => each.on));
  for (
    let day = camp.today > camp.asked.start ? camp.today : camp.asked.start;
    day <= camp.last;
    day = dayAfter(day, 1)
  )
    if (isOpen(camp, day) && !taken.has(day)) return day;
  return null;
}

/** A step repeated: the sessions of its purpose that follow stand back by as much as they would have gone on. */
export function repeated(camp: Camp, uid: string): State {
  const state = stateOf(camp);
  const one = camp.placed.find((each) => each.uid === uid);
  if (!one || one.step === null) return state;
  const later = camp.placed.filter(
    (each) =>
      each.purpose === one.purpose && each.on > one.on && each.on >= camp.today && each.step !== null && !each.done,
  );
  const next = later[0];
  const by = next ? Math.max(0, (next.step ?? 0) - one.step) : 0;
  const back = new Set(later.filter((each) => !each.locked).map((each) => each.uid));
  const week = next && weekOf(camp, next.on);
  const hold = week ? [...state.hold, { purpose: one.purpose, week: week.number }] : state.hold;
  const placed = state.placed.map((each) =>
    back.has(each.uid) ? { ...each, step: Math.max(one.step ?? 0, (each.step ?? 0) - by) } : each,
  );
  return { ...state, placed, hold };
}

/** What would be other: how many move, change, come and go. */
export function difference(
  camp: Camp,
  placed: Told[],
): { moved: number; changed: number; added: number; gone: number } {
  const now = new Map(placed.map((each) => [each.uid, each]));
  const same = camp.placed.filter((each) => now.has(each.uid));
  const movedOnes = same.filter((each) => now.get(each.uid)?.on !== each.on);
  const changedOnes = same.filter((each) => {
    const told = now.get(each.uid);
    return told && (told.step !== each.step || told.size !== each.size || told.purpose !== each.purpose);
  });
  return {
    moved: movedOnes.length,
    changed: changedOnes.length,
    added: placed.length - same.length,
    gone: camp.placed.length - same.length,
  };
}

export type Mark = "sprint" | "lactic" | "aerobic" | "bout" | "test" | null;
const MARKS: Record<string, Mark> = {
  "sprint-power": "sprint",
  "sprint-capacity": "sprint",
  "lactic-power": "lactic",
  "lactic-capacity": "lactic",
  threshold: "aerobic",
  "aerobic-power": "aerobic",
  "aerobic-base": "aerobic",
  "fight-rehearsal": "bout",
  sparring: "bout",
  test: "test",
};
/** The shape over a session: of the system it is for; skill has none. */
export const markOf = (purpose: string): Mark => MARKS[purpose] ?? null;

/** The purpose whose knobs the board tells: of those whose knob turns a lactic one first, else the one that turns most. */
export function lead(camp: Camp): Ladder | undefined {
  const turns = (ladder: Ladder) =>
    new Set(camp.placed.filter((each) => each.purpose === ladder.purpose).map((each) => each.step)).size;
  const told = camp.ladders.filter((ladder) => camp.placed.some((each) => each.purpose === ladder.purpose));
  const lactic = (ladder: Ladder) => Number(turns(ladder) > 1 && markOf(ladder.purpose) === "lactic");
  return told.toSorted((one, two) => lactic(two) - lactic(one) || turns(two) - turns(one))[0];
}

const NUMBERS = [
  "No",
  "One",
  "Two",
  "Three",
  "Four",
  "Five",
  "Six",
  "Seven",
  "Eight",
  "Nine",
  "Ten",
  "Eleven",
  "Twelve",
];
/** What a camp is called: "Eight weeks to 13 June". */
export function titleOf({ weeks, bout_on }: { weeks: number; bout_on: string | null }): string {
  const many = NUMBERS[weeks] ?? String(weeks);
  const word = weeks === 1 ? "week" : "weeks";
  return bout_on ? `${many} ${word} to ${dayAndMonth(bout_on)}` : `A block of ${many.toLowerCase()} ${word}`;
}

export const dayAndMonth = (day: string): string =>
  noon(day).toLocaleDateString("en-GB", { day: "numeric", month: "long", timeZone: "UTC" });
export const shortDay = (day: string): string =>
  noon(day).toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short", timeZone: "UTC" });
