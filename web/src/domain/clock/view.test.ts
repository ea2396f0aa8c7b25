import { describe, expect, it } from "vitest";
import { backTo, type Piece, skipTo, stepAt, untilStep_ms, view } from "./view";

const piece = (start_s: number, seconds: number, kind: Piece["kind"], rounds: [number, number][] = []): Piece => ({
  start_s,
  seconds,
  kind,
  tempo: kind === "work" ? "power" : kind,
  rounds: rounds.map(([turn, of]) => ({ turn, of })),
  part: 0,
});
const pieces = [
  piece(0, 30, "work", [
    [1, 1],
    [1, 2],
  ]),
  piece(30, 15, "rest", [
    [1, 1],
    [1, 2],
  ]),
  piece(45, 30, "work", [
    [1, 1],
    [2, 2],
  ]),
];

describe("what the clock shows", () => {
  it("counts in, works, rests and ends", () => {
    expect([-3, 0, 31, 50, 75].map((at) => view(pieces, at, 10).phase)).toEqual([
      "ready",
      "work",
      "rest",
      "work",
      "done",
    ]);
  });

  it("shows the time left and what comes next", () => {
    const shown = view(pieces, 12, 10);
    expect(shown.left_s).toBe(18);
    expect(shown.next?.kind).toBe("rest");
    expect(shown.leftShare).toBeCloseTo(0.6);
  });

  it("names the innermost round that is more than one", () => {
    expect(view(pieces, 50, 10).round).toEqual({ turn: 2, of: 2 });
    expect(view(pieces, 50, 10).set).toBeNull();
  });

  it("names set and round where repeats stand inside one another", () => {
    const nested = [
      piece(0, 20, "work", [
        [2, 3],
        [5, 8],
      ]),
    ];
    expect(view(nested, 1, 10)).toMatchObject({ set: { turn: 2, of: 3 }, round: { turn: 5, of: 8 } });
  });

  it("changes exactly at the bell", () => {
    expect(view(pieces, 29.999, 10).phase).toBe("work");
    expect(view(pieces, 30, 10).phase).toBe("rest");
  });

  it("skips to the next start, and from the last to the end", () => {
    expect([skipTo(pieces, -4), skipTo(pieces, 10), skipTo(pieces, 50)]).toEqual([0, 30, 75]);
  });

  it("steps back to the start of this one, or to the one before when this has just begun", () => {
    expect([backTo(pieces, 40), backTo(pieces, 31), backTo(pieces, 1)]).toEqual([30, 0, 0]);
  });
});

describe("how often it is drawn", () => {
  it("is drawn twenty times in a second, and in the count-in, never ahead of its time", () => {
    const frames = Array.from({ length: 3001 }, (_, frame) => frame / 1000 - 1.5);
    const shown = frames.map(stepAt);
    expect(new Set(shown).size).toBe(3 * 20 + 1);
    expect(Math.max(...frames.map((at, frame) => at - (shown[frame] ?? 0)))).toBeLessThan(1 / 20);
    expect(Math.min(...frames.map((at, frame) => at - (shown[frame] ?? 0)))).toBeGreaterThan(-1e-5);
  });

  it("shows every whole second in its first frame", () => {
    const hour = Array.from({ length: 3600 }, (_, second) => second);
    expect(hour.map(stepAt)).toEqual(hour);
    for (const at of [-0.03, 0.01, 12.2, 59.999]) {
      expect(stepAt(at + untilStep_ms(at) / 1000)).toBeGreaterThan(stepAt(at));
      expect(stepAt(at + untilStep_ms(at) / 1000 - 0.001)).toBe(stepAt(at));
    }
  });
});
