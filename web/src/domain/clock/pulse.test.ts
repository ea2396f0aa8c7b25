import { describe, expect, it } from "vitest";
import { beatAt, pulses, shownPulse } from "./pulse";

const flow = { start_s: 10, seconds: 4, pulse_per_min: 60 };
const rest = { start_s: 14, seconds: 10, pulse_per_min: 0 };
const at = (factor: 0 | 1 | 2 | 0.5) => pulses([flow, rest], factor).map((cue) => cue.at_s);

describe("the pulse", () => {
  it("beats through the work, leaves its first beat to the bell, and rests in the rest", () => {
    expect(at(1)).toEqual([11, 12, 13]);
  });

  it("goes in double and half time, or not at all", () => {
    expect(at(2)).toEqual([10.5, 11, 11.5, 12, 12.5, 13, 13.5]);
    expect(at(0.5)).toEqual([12]);
    expect(at(0)).toEqual([]);
  });

  it("tells the eye which beat it is", () => {
    expect([10, 11.2, 13.9].map((now) => beatAt(flow, now, 1))).toEqual([0, 1, 3]);
    expect(beatAt(rest, 15, 1)).toBeNull();
    expect(beatAt(null, 15, 1)).toBeNull();
  });

  it("has no beat where reps are counted", () => {
    expect(pulses([{ ...flow, reps: 20 }], 1)).toEqual([]);
  });
});

describe("music", () => {
  const music = { start_s: 10, seconds: 32, pulse_per_min: 60, music_per_min: 120 };
  it("is beaten for the eye without being asked for, in its own time, and as asked where it is", () => {
    expect(beatAt(music, 14, shownPulse(music, 0))).toBe(8);
    expect(beatAt(music, 14, shownPulse(music, 1))).toBe(4);
    expect(shownPulse({ ...music, music_per_min: null }, 0)).toBe(0);
    expect(shownPulse(null, 0)).toBe(0);
  });
});
