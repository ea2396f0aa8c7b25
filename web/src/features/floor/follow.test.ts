import { describe, expect, it } from "vitest";
import { isRunning, lasted_s, newRun, position } from "../../domain/clock/run";
import { onThisClock, type Said } from "./follow";

const T0 = 9_000_000;
const AN_HOUR = 3_600_000;
const state = {
  anchor_s: 20,
  anchor_ms: T0,
  sent_ms: T0 + 4000,
  waits: false,
  reps: {},
  lasted_s: 0,
  started: true,
  ended: false,
  board: 0,
  pulse: 0,
  shift: 0,
};
const said = (more: Partial<Said["state"]> = {}, age_ms = 0): Said => ({
  run_id: "r",
  age_ms,
  state: { ...state, ...more },
});

describe("a run followed on another screen", () => {
  it("stands at the same second, however far the two devices' clocks are apart", () => {
    const here = T0 + 4000 + AN_HOUR;
    const run = onThisClock(said(), here, 10);
    expect(position(run, here)).toBeCloseTo(24, 6);
    expect(position(run, here + 1500)).toBeCloseTo(25.5, 6);
  });

  it("is right for a screen that joins late", () => {
    const here = T0 - AN_HOUR;
    expect(position(onThisClock(said({}, 7000), here, 10), here)).toBeCloseTo(31, 6);
  });

  it("stands where it is held, and waits where reps are counted", () => {
    const held = onThisClock(said({ anchor_ms: null }), T0, 10);
    expect([position(held, T0 + 5000), isRunning(held)]).toEqual([20, false]);
    expect(isRunning(onThisClock(said({ anchor_ms: null, waits: true }), T0, 10))).toBe(true);
  });

  it("has lasted as long as on the device that runs it, whatever was held before", () => {
    const open = { start_s: 20, seconds: 60, open_ended: true };
    const run = onThisClock(said({ anchor_s: 30, lasted_s: 95 }), T0 + 4000, 10);
    expect(lasted_s(run, T0 + 4000, open)).toBeCloseTo(99, 6);
    const waits = onThisClock(said({ anchor_s: 79.99, anchor_ms: null, waits: true, lasted_s: 95 }), T0, 10);
    expect(lasted_s(waits, T0 + 7000, open)).toBeCloseTo(102, 6);
  });

  it("counts in before it is started, and knows that it has ended", () => {
    const before = onThisClock(said({ anchor_s: -10, anchor_ms: null, started: false }), T0, 10);
    expect(position(before, T0)).toBe(newRun("r", 10).anchor_s);
    expect(onThisClock(said({ ended: true }), T0, 10).endedAtMs).toBe(T0);
  });
});
