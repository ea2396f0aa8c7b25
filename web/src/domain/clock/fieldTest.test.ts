import { describe, expect, it } from "vitest";
import {
  COUNT_IN_S,
  COURSES,
  type Course,
  cuesOf,
  finished,
  fresh,
  stepped,
  strapSays,
  type TestEvent,
} from "./fieldTest";

const STRIKES = COURSES.strikes as Course;
const REST = COURSES["hr-rest"] as Course;
const play = (course: Course, events: TestEvent[], from = fresh(course)) =>
  events.reduce((state, event) => stepped(course, state, event), from);
const at = (second: number) => (COUNT_IN_S + second) * 1000;
const begin: TestEvent = { kind: "begin", now_ms: 0 };
const look = (second: number): TestEvent => ({ kind: "look", now_ms: at(second) });
const tap = (second: number): TestEvent => ({ kind: "tap", now_ms: at(second) });
const tell = (place: number, count: number | null): TestEvent => ({ kind: "tell", place, count });
const next: TestEvent = { kind: "next" };

describe("a strike test", () => {
  it("asks for its count as a part ends, and goes on only when it was told", () => {
    expect(play(STRIKES, [begin, look(9.9)]).asking).toBe(false);
    const ended = play(STRIKES, [begin, look(10)]);
    expect(ended.asking).toBe(true);
    expect(stepped(STRIKES, ended, next)).toBe(ended);
    const on = play(STRIKES, [tell(0, 58), next], ended);
    expect([on.stage, on.zero_ms, on.asking]).toEqual([1, null, false]);
    expect(on.counts).toEqual([58, null, null, null, null, null, null, null]);
  });

  it("counts taps in the piece in which they fall, and none before the bell or after it", () => {
    const third = { ...fresh(STRIKES), stage: 2, counts: [58, 150, null, null, null, null, null, null] };
    const state = play(
      STRIKES,
      [begin, tap(-0.5), tap(0.1), tap(29.9), tap(30), tap(179.9), tap(180), look(180), tap(181)],
      third,
    );
    expect(state.counts).toEqual([58, 150, 2, 1, null, null, null, 1]);
    expect(state.asking).toBe(true);
  });

  it("is over when all three parts were told, and a count can still be mended", () => {
    const parts: TestEvent[][] = [
      [begin, look(10), tell(0, 58), next],
      [begin, look(30), tell(1, 150), next],
      [begin, look(180), ...[140, 120, 105, 95, 90, 88].map((count, place) => tell(place + 2, count)), next],
    ];
    const done = play(STRIKES, parts.flat());
    expect(finished(STRIKES, done)).toBe(true);
    expect(play(STRIKES, [tell(0, 60), begin, next], done).counts[0]).toBe(60);
  });

  it("forgets the counts of the part that is done again, and of no other", () => {
    const ended = play(STRIKES, [begin, look(10), tell(0, 58), next, begin, tap(3), look(30)]);
    const again = stepped(STRIKES, ended, { kind: "again" });
    expect([again.stage, again.zero_ms, again.asking]).toEqual([1, null, false]);
    expect(again.counts.slice(0, 2)).toEqual([58, null]);
  });

  it("is counted in, rung at both ends, and clacks where a split ends", () => {
    const cues = cuesOf(STRIKES.stages[2] as Course["stages"][0]);
    expect(cues.filter(({ kind }) => kind === "change").map(({ at_s }) => at_s)).toEqual([30, 60, 90, 120, 150]);
    expect(cues.find(({ kind }) => kind === "end")?.at_s).toBe(180);
    expect(cues.filter(({ kind }) => kind === "count").map(({ at_s }) => at_s)).toEqual([-3, -2, -1]);
  });
});

describe("the heart by a strap", () => {
  const beat = (second: number, bpm: number): TestEvent => ({ kind: "heart", now_ms: at(second), bpm });

  it("at rest is the mean of the minute, and is told by itself", () => {
    const state = play(REST, [begin, beat(-2, 90), beat(1, 60), beat(30, 56), beat(59, 52), look(60)]);
    expect(state.counts).toEqual([56]);
    expect(state.asking).toBe(true);
  });

  it("is left to be typed where the strap was silent for most of it", () => {
    expect(play(REST, [begin, beat(1, 60), beat(20, 60), look(60)]).counts).toEqual([null]);
  });

  it("falls from its first seconds to its last", () => {
    expect(
      strapSays(
        "fall",
        [
          [0, 180],
          [4, 178],
          [30, 150],
          [56, 141],
          [60, 139],
        ],
        60,
      ),
    ).toBe(39);
    expect(
      strapSays(
        "fall",
        [
          [0, 100],
          [58, 104],
        ],
        60,
      ),
    ).toBe(0);
    expect(
      strapSays(
        "fall",
        [
          [20, 150],
          [58, 104],
        ],
        60,
      ),
    ).toBeNull();
  });
});
