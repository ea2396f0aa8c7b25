import { describe, expect, it } from "vitest";
import {
  added,
  type Camp,
  changed,
  dayAfter,
  difference,
  isOpen,
  lead,
  markOf,
  moved,
  nextFree,
  type Placed,
  repeated,
  stateOf,
  titleOf,
  without,
  withState,
} from "./plan";

const MONDAY = "2027-01-04";
const day = (week: number, weekday: number) => dayAfter(MONDAY, 7 * (week - 1) + weekday);
const step = (load: number, words: string) => ({
  name: "",
  words,
  rounds: 3,
  round_s: 180,
  rest_s: 90,
  load: { whole: load, "two thirds": load * 0.7, half: load / 2 },
  minutes: { whole: 40, "two thirds": 30, half: 20 },
  lactic: { whole: false, "two thirds": false, half: false },
  hard: { whole: true, "two thirds": false, half: false },
  limbs: { whole: { "left hand": 300 }, "two thirds": { "left hand": 200 }, half: { "left hand": 150 } },
});
const placed = (uid: string, on: string, purpose = "threshold", at = 0, more: Partial<Placed> = {}): Placed => ({
  uid,
  on,
  order: 0,
  purpose,
  word: purpose,
  step: at,
  size: "whole",
  knob: "",
  locked: false,
  skipped: false,
  missed: false,
  edited: false,
  load: 200,
  planned_load: 200,
  rpe: 6,
  minutes: 40,
  limbs: { "left hand": 300 },
  lactic: false,
  hard: true,
  session_id: 1,
  planned_id: 1,
  done: null,
  ...more,
});
const camp = (held: Placed[], more: Partial<Camp> = {}): Camp => ({
  id: 1,
  revision: 1,
  who: "Runa Velde",
  person_id: 1,
  group_id: null,
  today: day(2, 0),
  asked: {
    start: MONDAY,
    bout_on: day(4, 5),
    days: [
      { weekday: "mon", at: "18:00", minutes: 75 },
      { weekday: "thu", at: "18:00", minutes: 75 },
    ],
  } as unknown as Camp["asked"],
  last: day(4, 4),
  taper_from: day(3, 0),
  lactic_until: day(3, 3),
  rehearsal_from: day(3, 0),
  fixtures: [{ on: day(2, 3), purpose: "travel" }],
  ladders: [
    { purpose: "threshold", word: "threshold", name: "Mine", steps: [step(200, "rest 1:30"), step(220, "rest 1:15")] },
    { purpose: "skill", word: "skill", name: "Skill", steps: [step(100, "3 rounds")] },
  ],
  without: {},
  placed: held,
  hold: [],
  weeks: [1, 2, 3, 4].map((number) => ({
    number,
    first: day(number, 0),
    last: number === 4 ? day(4, 4) : day(number, 6),
    phase: "build" as const,
    whole: true,
    load: 0,
    done_load: 0,
    limbs: {},
    done_limbs: {},
    turned: [],
  })),
  rules: [],
  bound_gap: 0,
  notes: [],
  ...more,
});

describe("a plan pushed about", () => {
  const two = camp([placed("a", day(2, 0)), placed("b", day(2, 3))]);

  it("moves a session and counts its week anew at once", () => {
    const after = withState(two, moved(stateOf(two), "a", day(3, 0)));
    expect(after.placed.map(({ uid, on }) => [uid, on])).toEqual([
      ["b", day(2, 3)],
      ["a", day(3, 0)],
    ]);
    expect(after.weeks.map(({ load }) => load)).toEqual([0, 200, 200, 0]);
  });

  it("puts skill before what else stands on the day", () => {
    const state = added(stateOf(two), { uid: "s", on: day(2, 0), purpose: "skill", step: 0 } as never);
    const there = withState(two, state).placed.filter(({ on }) => on === day(2, 0));
    expect(there.map(({ uid }) => uid)).toEqual(["s", "a"]);
  });

  it("costs what its step and size cost", () => {
    const [half] = withState(two, changed(stateOf(two), "a", { step: 1, size: "half" })).placed;
    expect(half).toMatchObject({ load: 110, minutes: 20, hard: false, knob: "rest 1:15; half of the rounds" });
  });

  it("leaves what was done, and what was changed on the Bench, as it is", () => {
    const done = { entry_id: 1, rpe: 8, load: 333, finished: true, too_hard: false };
    const held = camp([placed("a", day(1, 0), "threshold", 0, { done, load: 333 })]);
    expect(withState(held, changed(stateOf(held), "a", { step: 1 })).placed[0]?.load).toBe(333);
    expect(withState(held, stateOf(held)).weeks[0]).toMatchObject({ load: 333, done_load: 333 });
  });

  it("counts nothing for what was missed", () => {
    const held = camp([placed("a", day(1, 0))]);
    expect(withState(held, stateOf(held)).weeks[0]?.load).toBe(0);
    expect(withState(held, stateOf(held)).placed[0]?.missed).toBe(true);
  });

  it("takes out and says what is other", () => {
    const state = without(moved(changed(stateOf(two), "b", { step: 1 }), "b", day(3, 3)), "a");
    expect(difference(two, state.placed)).toEqual({ moved: 1, changed: 1, added: 0, gone: 1 });
  });
});

describe("days", () => {
  it("are open on the weekdays that were chosen, unless somebody travels", () => {
    const held = camp([]);
    expect([day(2, 0), day(2, 1), day(2, 3)].map((each) => isOpen(held, each))).toEqual([true, false, false]);
  });

  it("give the next free one from today on", () => {
    expect(nextFree(camp([placed("a", day(2, 0))]))).toBe(day(3, 0));
    expect(nextFree(camp([], { today: day(4, 4) }))).toBeNull();
  });
});

describe("a step that is repeated", () => {
  it("holds the knob, and those that follow stand back by as much", () => {
    const held = camp([
      placed("a", day(1, 3), "threshold", 0),
      placed("b", day(2, 0), "threshold", 1),
      placed("c", day(3, 0), "threshold", 1, { locked: true }),
      placed("d", day(2, 3), "skill", 0),
    ]);
    const state = repeated(held, "a");
    expect(state.placed.map(({ uid, step }) => [uid, step])).toEqual([
      ["a", 0],
      ["b", 0],
      ["c", 1],
      ["d", 0],
    ]);
    expect(state.hold).toEqual([{ purpose: "threshold", week: 2 }]);
  });
});

describe("words and marks", () => {
  it("call a camp by its weeks", () => {
    expect(titleOf({ weeks: 8, bout_on: "2027-06-13" })).toBe("Eight weeks to 13 June");
    expect(titleOf({ weeks: 1, bout_on: null })).toBe("A block of one week");
    expect(titleOf({ weeks: 20, bout_on: "2027-06-13" })).toBe("20 weeks to 13 June");
  });

  it("mark each purpose with the shape of its system", () => {
    expect(["lactic-power", "sprint-power", "threshold", "skill", "sparring"].map(markOf)).toEqual([
      "lactic",
      "sprint",
      "aerobic",
      null,
      "bout",
    ]);
  });

  it("lead with a lactic purpose whose knob turns, whatever else turns", () => {
    const ladders = ["threshold", "lactic-power"].map((purpose) => ({
      purpose,
      word: purpose,
      name: purpose,
      steps: [step(200, "a"), step(220, "b"), step(240, "c")],
    }));
    const one = placed("a", day(1, 0), "lactic-power");
    const others = [0, 1, 2].map((at) => placed(`t${at}`, day(at + 1, 3), "threshold", at));
    expect(lead(camp([one, ...others], { ladders }))?.purpose).toBe("threshold");
    const turned = placed("b", day(3, 0), "lactic-power", 1);
    expect(lead(camp([one, turned, ...others], { ladders }))?.purpose).toBe("lactic-power");
  });

  it("lead with the purpose whose knobs turn most", () => {
    const held = camp([
      placed("a", day(1, 0)),
      placed("b", day(2, 0), "threshold", 1),
      placed("c", day(2, 3), "skill"),
    ]);
    expect(lead(held)?.purpose).toBe("threshold");
  });
});
