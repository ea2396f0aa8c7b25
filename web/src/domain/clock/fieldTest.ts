/** A field test on the floor: its stages on one clock, and what is asked as each of them ends. */

import type { Cue } from "./cuePlayer";

export interface Stage {
  name: string;
  seconds: number;
  /** Equal pieces of it that are counted each for itself. */
  splits: number;
}

export interface Course {
  /** What is asked of each piece. */
  asks: string;
  /** How a strap answers it: the mean of the stage, or by how much it falls. */
  strap: "mean" | "fall" | null;
  /** Whether strikes can be tapped as they fall. */
  tapped: boolean;
  stages: readonly Stage[];
}

/** Tests that are done on this clock, by their kind. */
export const COURSES: Record<string, Course> = {
  strikes: {
    asks: "Strikes",
    strap: null,
    tapped: true,
    stages: [
      { name: "10 s flat out", seconds: 10, splits: 1 },
      { name: "30 s flat out", seconds: 30, splits: 1 },
      { name: "3:00 flat out", seconds: 180, splits: 6 },
    ],
  },
  cooper: { asks: "Metres run", strap: null, tapped: false, stages: [{ name: "12 minutes", seconds: 720, splits: 1 }] },
  "hr-rest": {
    asks: "Heart rate, bpm",
    strap: "mean",
    tapped: false,
    stages: [{ name: "A minute, lying or sitting still", seconds: 60, splits: 1 }],
  },
  "hr-recovery": {
    asks: "Fall of the heart rate, bpm",
    strap: "fall",
    tapped: false,
    stages: [{ name: "The first minute after hard work", seconds: 60, splits: 1 }],
  },
};

export const COUNT_IN_S = 5;
/** Readings at either end of a stage by which its fall is told. */
const AT_AN_END_S = 5;

export interface TestState {
  stage: number;
  /** When the stage begins or began, on the page's clock [ms]; null before it is started. */
  zero_ms: number | null;
  /** The stage is over: its counts are asked. */
  asking: boolean;
  /** One for each piece of each stage, in order; null where it was not told yet. */
  counts: (number | null)[];
  /** Seconds of the stage and heart rate [bpm]. */
  heart: [number, number][];
}

const piecesOf = (course: Course): number => course.stages.reduce((sum, stage) => sum + stage.splits, 0);

export const fresh = (course: Course): TestState => ({
  stage: 0,
  zero_ms: null,
  asking: false,
  counts: Array.from({ length: piecesOf(course) }, () => null),
  heart: [],
});

/** Which counts belong to a stage: the first, and how many. */
export function placesOf(course: Course, stage: number): { first: number; many: number } {
  const first = course.stages.slice(0, stage).reduce((sum, each) => sum + each.splits, 0);
  return { first, many: course.stages[stage]?.splits ?? 0 };
}

/** Seconds of the stage that are gone; below zero while it is counted in. */
export const gone_s = (state: TestState, now_ms: number): number =>
  state.zero_ms === null ? -COUNT_IN_S : (now_ms - state.zero_ms) / 1000;

export const finished = (course: Course, state: TestState): boolean => state.stage >= course.stages.length;

export type TestEvent =
  | { kind: "begin"; now_ms: number }
  | { kind: "look"; now_ms: number }
  | { kind: "tap"; now_ms: number }
  | { kind: "heart"; now_ms: number; bpm: number }
  | { kind: "tell"; place: number; count: number | null }
  | { kind: "next" }
  | { kind: "again" };

/** What becomes of a test. Counts that were told are never taken away but by doing their stage again. */
export function stepped(course: Course, state: TestState, event: TestEvent): TestState {
  const stage = course.stages[state.stage];
  if (!stage) return event.kind === "tell" ? told(state, event.place, event.count) : state;
  const { first, many } = placesOf(course, state.stage);
  switch (event.kind) {
    case "begin":
      if (state.zero_ms !== null) return state;
      return { ...state, zero_ms: event.now_ms + COUNT_IN_S * 1000, heart: [] };
    case "look": {
      if (state.zero_ms === null || state.asking || gone_s(state, event.now_ms) < stage.seconds) return state;
      const read = course.strap && strapSays(course.strap, state.heart, stage.seconds);
      const ended = { ...state, asking: true };
      return read === null ? ended : told(ended, first, read);
    }
    case "tap": {
      const gone = gone_s(state, event.now_ms);
      if (!course.tapped || state.asking || gone < 0 || gone >= stage.seconds) return state;
      const place = first + Math.floor((gone / stage.seconds) * stage.splits);
      return told(state, place, (state.counts[place] ?? 0) + 1);
    }
    case "heart": {
      const gone = gone_s(state, event.now_ms);
      if (state.zero_ms === null || gone < 0 || gone > stage.seconds) return state;
      return { ...state, heart: [...state.heart, [gone, event.bpm]] };
    }
    case "tell":
      return told(state, event.place, event.count);
    case "next": {
      const open = state.counts.slice(first, first + many).includes(null);
      if (!state.asking || open) return state;
      return { ...state, stage: state.stage + 1, zero_ms: null, asking: false };
    }
    case "again":
      return {
        ...state,
        zero_ms: null,
        asking: false,
        counts: state.counts.map((count, place) => (place >= first && place < first + many ? null : count)),
        heart: [],
      };
  }
}

const told = (state: TestState, place: number, count: number | null): TestState => ({
  ...state,
  counts: state.counts.map((before, each) => (each === place ? count : before)),
});

/** What the strap's readings come to; null where there are too few of them. */
export function strapSays(how: "mean" | "fall", heart: readonly [number, number][], seconds: number): number | null {
  const mean = (readings: readonly [number, number][]) =>
    readings.length ? readings.reduce((sum, [, bpm]) => sum + bpm, 0) / readings.length : null;
  if (how === "mean") {
    const all = mean(heart);
    const covered = heart.length ? (heart.at(-1)?.[0] ?? 0) - (heart[0]?.[0] ?? 0) : 0;
    return all !== null && covered >= seconds / 2 ? Math.round(all) : null;
  }
  const before = mean(heart.filter(([at]) => at <= AT_AN_END_S));
  const then = mean(heart.filter(([at]) => at >= seconds - AT_AN_END_S));
  return before === null || then === null ? null : Math.max(0, Math.round(before - then));
}

/** The sounds of a stage, in its own time: counted in, a clack where a piece ends, the bell at both ends. */
export function cuesOf(stage: Stage): Cue[] {
  const counted = [-3, -2, -1].map((at_s): Cue => ({ at_s, kind: "count" }));
  const between = Array.from({ length: stage.splits - 1 }, (_, index): Cue => {
    return { at_s: ((index + 1) * stage.seconds) / stage.splits, kind: "change" };
  });
  return [...counted, { at_s: 0, kind: "bell" }, ...between, { at_s: stage.seconds, kind: "end" }];
}
