import { type KeyboardEvent as Pressed, useEffect, useRef } from "react";

/**
 * Where a key works: outside every field; also in a tick; also in a stepper or a choice; or also while text is written.
 * None works in a dialog that stops its keys.
 */
type Reach = "page" | "tick" | "field" | "text";

/** One line of the list on `?`: what its keys do, and for each action the keys that call it, the one that is told first. */
interface Row<A extends string = string> {
  does: string;
  keys: Readonly<Record<A, readonly string[]>>;
  reach: Reach;
  /** In the place of the keys themselves, where they are many. */
  shown?: string;
}
export interface Place<R extends Row = Row> {
  title: string;
  rows: readonly R[];
}
type ActionsOf<R> = R extends Row<infer A> ? A : never;
/** Gives back `false` where the key is not taken after all. */
type Action = (event: KeyboardEvent) => unknown;

const row = <const A extends string>(
  does: string,
  keys: Record<A, readonly string[]>,
  reach: Reach = "page",
  shown?: string,
): Row<A> => ({ does, keys, reach, ...(shown ? { shown } : {}) });
const place = <R extends Row>(title: string, rows: readonly R[]): Place<R> => ({ title, rows });

const DIGITS = [..."0123456789"];

/** The keys of a line of shorthand that could go on. */
export const LINE = place("Keys of a line", [
  row("what could come next in a line", { complete: ["Ctrl+Space"] }, "text"),
  row("the line is finished; Shift Enter makes another", { finish: ["Enter"] }, "text"),
]);

/** The keys of a field with − and +. */
export const STEPPER = place("Keys of a number", [
  row("more, less", { more: ["+", "=", "ArrowUp"], less: ["-", "−", "ArrowDown"] }, "field"),
]);

export const LEVELS = place("Keys of the levels", [
  row("level by level: nest, un-nest, split, double, remove", {
    nest: ["n"],
    unnest: ["u"],
    split: ["s"],
    double: ["d"],
    remove: ["Delete"],
  }),
  row("the level up or down", { moveUp: ["Alt+ArrowUp"], moveDown: ["Alt+ArrowDown"] }),
  row("the level above, below", { up: ["ArrowUp"], down: ["ArrowDown"] }),
]);

export const SCORE = place("Keys of the score", [
  row("move the cursor of the score by 5 seconds", { earlier: [","], later: ["."] }),
]);

export const BENCH = place("Keys of the bench", [
  row("choose a row", { up: ["ArrowUp"], down: ["ArrowDown"] }),
  row("pick several rows, to change them together", { pickUp: ["Shift+ArrowUp"], pickDown: ["Shift+ArrowDown"] }),
  row("close what is open (Enter opens it)", { close: ["Escape"] }, "text"),
  row("move the row up or down", { moveUp: ["Alt+ArrowUp"], moveDown: ["Alt+ArrowDown"] }, "field"),
  row("add a part, double it, remove it", { add: ["a"], double: ["d"], remove: ["Delete"] }),
  row("unfold the whole score, fold it again", { unfold: ["]"], fold: ["["] }),
  row("let protocols be proposed; 1 to 5 takes one", { propose: ["p"] }),
  row("compare", { compare: ["c"] }),
  row("scale or convert", { scale: ["s"] }),
  row("history", { history: ["h"] }),
  row("print", { print: ["i"] }),
  row("send out", { sendOut: ["o"] }),
  row("undo, redo", { undo: ["Ctrl+z"], redo: ["Ctrl+Shift+z"] }, "field"),
  row("save", { save: ["Ctrl+s"] }, "text"),
  row("run", { run: ["r"] }),
]);

export const FLOOR = place("Keys of the floor", [
  row("start, pause; at the end: to the log", { toggle: ["Space", "MediaPlayPause"] }),
  row("skip, or done where it is open-ended; back", {
    skip: ["n", "ArrowRight", "MediaTrackNext"],
    back: ["b", "ArrowLeft", "MediaTrackPrevious"],
  }),
  row("a rep is done, while reps are counted", { rep: ["Enter"] }),
  row("ten seconds more of this rest", { more: ["+", "="] }),
  row("partners change places", { swap: ["w"] }),
  row("who is where in a class, and somebody late", { board: ["c"] }),
  row("pulse: single, double, half time, none", { nextPulse: ["t"] }),
  row("sound on or off", { switchSound: ["s"] }),
  row("somebody is unwell: everybody stops", { unwell: ["u"] }),
  row("held for a second: end the run", { leave: ["Escape"] }, "page", "hold Esc"),
]);

export const ENTRY = place("Keys of the log entry", [
  row("how hard it was; X is ten", { rpe: [...DIGITS, "x"] }, "page", "0 to 9, X"),
  row("mark where it hurts", { mark: ["n"] }),
  row("save the log", { save: ["s"] }),
]);

export const TODAY = place("Keys of the day", [
  row("run the next session", { run: ["r"] }),
  row("plan one", { plan: ["p"] }),
]);

export const CAMP = place("Keys of the camp", [
  row("solve the rest", { solve: ["s"] }),
  row("move the bout", { bout: ["m"] }),
  row("what is asked of the weeks", { asked: ["a"] }),
  row("send out", { sendOut: ["o"] }),
  row("print", { print: ["i"] }),
  row("undo, redo", { undo: ["Ctrl+z"], redo: ["Ctrl+Shift+z"] }, "tick"),
]);

/** A session of the week in hand; Tab goes from one to the next, Enter opens it. */
export const WEEK = place("Keys of a session in its week", [
  row("a day earlier, a day later", { earlier: ["ArrowLeft"], later: ["ArrowRight"] }),
  row("its knob harder, easier", { harder: ["+", "="], easier: ["-", "−"] }),
  row("lock it, or let it go", { lock: ["l"] }),
  row("take it out", { remove: ["Delete"] }),
  row("the week before, the next one", { before: ["b"], next: ["n"] }),
]);

export const CLASS = place("Keys of the class", [
  row("the person above, below", { up: ["ArrowUp"], down: ["ArrowDown"] }),
  row("the wave before, after", { before: ["ArrowLeft"], after: ["ArrowRight"] }),
  row("move to a station", { move: ["m"] }),
  row("swap with somebody", { swap: ["w"] }),
  row("absent, or there after all", { absent: ["x"] }),
  row("late", { late: ["l"] }),
  row("pair with somebody", { pair: ["p"] }),
  row("let go where they were put", { letGo: ["g"] }),
  row("shuffle the pairs", { shuffle: ["f"] }),
  row("apply what might change", { first: ["1"], second: ["2"], third: ["3"], fourth: ["4"] }, "page", "1 to 4"),
  row("what is asked", { asked: ["a"] }),
  row("send out", { sendOut: ["o"] }),
  row("print", { print: ["i"] }),
  row("run", { run: ["r"] }),
  row("undo, redo", { undo: ["Ctrl+z"], redo: ["Ctrl+Shift+z"] }, "tick"),
]);

export const TRENDS = place("Keys of the trends", [
  row("fewer weeks, more weeks", { fewer: ["["], more: ["]"] }),
  row("the one before, the next one", { before: ["b"], next: ["n"] }),
  row("the numbers as a table", { table: ["t"] }),
  row("print", { print: ["i"] }),
]);

export const NEXT_TIME = place("Keys of what comes next", [
  row("the first step laid on the bench, planned on a day", { lay: ["l"], plan: ["p"] }),
]);

/** A field test on the floor. */
export const TEST = place("Keys of the test", [row("begin, tap a strike, go on", { go: ["Space"] })]);

export const ROSTER = place("Keys of the roster", [row("a new athlete", { add: ["n"] })]);

export const LIBRARY = place("Keys of the library", [row("search", { search: ["/"] })]);

/** A page over the bench: proposals, two sessions side by side, a session scaled. */
export const PAGE = place("Keys of this page", [
  row("back to the bench", { close: ["Escape"] }, "text"),
  row("take one of them", { take: DIGITS.slice(1) }, "tick", "1 to 9"),
]);

/** As a key is written above: `d`, `Ctrl+Shift+z`, `Alt+ArrowUp`. Shift is told only where the character does not. */
function writtenAs(event: KeyboardEvent | Pressed): string {
  const key = event.key === " " ? "Space" : event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const ctrl = event.ctrlKey || event.metaKey;
  return [ctrl && "Ctrl", event.altKey && "Alt", event.shiftKey && (ctrl || key.length > 1) && "Shift", key]
    .filter(Boolean)
    .join("+");
}

/** What a key calls in a place, if anything. */
export function actionOf<R extends Row>(at: Place<R>, event: KeyboardEvent | Pressed): ActionsOf<R> | null {
  return found(at, event)?.action ?? null;
}

function found<R extends Row>({ rows }: Place<R>, event: KeyboardEvent | Pressed) {
  const written = writtenAs(event);
  for (const each of rows)
    for (const [action, keys] of Object.entries(each.keys) as [ActionsOf<R>, readonly string[]][])
      if (keys.includes(written)) return { action, reach: each.reach };
  return null;
}

/** The keys of a place, wherever on the page they are pressed. An action that is not given leaves its keys alone. */
export function useKeys<R extends Row>(
  at: Place<R>,
  actions: { [A in ActionsOf<R>]: Action | undefined },
  { capture = false, quiet = false, once = false } = {},
) {
  const latest = useRef({ actions, quiet });
  latest.current = { actions, quiet };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const pressed = found(at, event);
      const action = pressed && latest.current.actions[pressed.action];
      if (!action || latest.current.quiet || !reaches(pressed.reach, event.target as HTMLElement)) return;
      if ((once && event.repeat) || action(event) === false) return;
      event.preventDefault();
      if (capture) event.stopPropagation();
    };
    window.addEventListener("keydown", onKey, { capture });
    return () => window.removeEventListener("keydown", onKey, { capture });
  }, [at, capture, once]);
}

/** In a sheet that is open. One just closed holds the focus until it is gone: its keys are the page's already. */
export const inSheet = (target: Element): boolean => target.closest("dialog[open]") !== null;

/** On a sheet: while it is open its keys reach nothing beneath. */
export function keepKeys(event: Pressed<HTMLDialogElement>) {
  if (event.currentTarget.open) event.stopPropagation();
}

function reaches(reach: Reach, target: HTMLElement): boolean {
  if (reach === "text") return true;
  if (inSheet(target)) return false;
  const field = target.closest("input:not([type=radio]), textarea, select");
  return (
    !field ||
    field.closest("dialog") !== null ||
    (reach === "tick" && field.matches("[type=checkbox]")) ||
    (reach === "field" && field.matches("[role=spinbutton], [type=checkbox], select"))
  );
}

const GLYPHS: Record<string, string> = {
  ArrowUp: "↑",
  ArrowDown: "↓",
  ArrowLeft: "←",
  ArrowRight: "→",
  Escape: "Esc",
  "-": "−",
};
/** The keys of a row as they are told: the first of each action, `Ctrl Z, Ctrl Shift Z`. */
export function told({ keys, shown }: Row): string {
  const first = Object.values(keys).map(([key = ""]) => (key === "+" ? [key] : key.split("+")));
  return (
    shown ??
    first
      .map((key) => key.map((each) => GLYPHS[each] ?? (each.length > 1 ? each : each.toUpperCase())).join(" "))
      .join(" · ")
  );
}

export type FloorAction = ActionsOf<(typeof FLOOR)["rows"][number]>;

/** What is pressed for an action, as it is told. */
export function keyOf<R extends Row>({ rows }: Place<R>, action: ActionsOf<R>): string {
  const row = rows.find(({ keys }) => action in keys);
  if (!row) return "";
  return told({ ...row, keys: { [action]: (row.keys as Record<string, readonly string[]>)[action] ?? [] } });
}

/** `?`, everywhere. */
export const LIST = place("Keys everywhere", [row("this list", { list: ["?"] })]);
