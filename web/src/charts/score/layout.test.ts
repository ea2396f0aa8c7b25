import { describe, expect, it } from "vitest";
import { tone } from "./ink";
import { folds, GAP, timeAt, xOf } from "./layout";

const parts = [
  { start_s: 0, total_s: 360 },
  { start_s: 360, total_s: 720 },
  { start_s: 1080, total_s: 60 },
];

describe("the time axis", () => {
  it("fills the width exactly, gaps and all", () => {
    for (const open of [[], [0], [2], [0, 2], [0, 1, 2]]) {
      const all = folds(parts, new Set(open), 800);
      expect(all.reduce((sum, fold) => sum + fold.width, 0) + GAP * 2).toBeCloseTo(800);
    }
  });

  it("gives the part in hand about half, however short it is", () => {
    const open = folds(parts, new Set([2]), 800)[2];
    expect((open?.width ?? 0) / 800).toBeGreaterThan(0.4);
  });

  it("is true to time throughout where every part is unfolded", () => {
    const all = folds(parts, new Set([0, 1, 2]), 816);
    expect(all.map((fold) => Math.round((fold.width / 800) * 1140))).toEqual([360, 720, 60]);
  });

  it("goes from time to place and back", () => {
    const all = folds(parts, new Set([1]), 800);
    for (const at of [0, 100, 359, 400, 1000, 1100]) expect(timeAt(all, xOf(all, at))).toBeCloseTo(at, 5);
  });

  it("puts the end of a part inside it, not at the start of the next", () => {
    const all = folds(parts, new Set([1]), 800);
    expect(xOf(all, 360, 0)).toBeLessThan(xOf(all, 360, 1));
  });

  it("runs left to right", () => {
    const all = folds(parts, new Set([0]), 800);
    const places = [0, 200, 360, 900, 1080, 1140].map((at) => xOf(all, at));
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });

  it("draws nothing for no parts", () => {
    expect(folds([], new Set(), 800)).toEqual([]);
    expect(xOf([], 10)).toBe(0);
  });
});

describe("ink", () => {
  it("darkens as effort climbs", () => {
    const light = [0.3, 0.58, 0.9, 1.2, 1.7].map((demand) => Number(tone(demand).match(/\d+/)?.[0]));
    expect(light).toEqual([...light].sort((a, b) => b - a));
  });
});
