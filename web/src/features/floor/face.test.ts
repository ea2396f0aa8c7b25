import { describe, expect, it } from "vitest";
import { calledRows } from "./Ahead";
import { calledAt } from "./face";

describe("a called word", () => {
  it("stands as long as it is being called, and a call of what comes next is not one", () => {
    const calls = [
      { at_s: 10, kind: "cue" as const, text: "push" },
      { at_s: 20, kind: "next" as const, text: "next: power" },
    ];
    expect([9.9, 10, 11.9, 12.1, 20.5].map((at) => calledAt(calls, at))).toEqual([null, "PUSH", "PUSH", null, null]);
  });
});

describe("a combination on the floor", () => {
  it("has a row for each strike, and the one on the beat is marked", () => {
    const rows = calledRows(["jab", "cross", "lead hook"], 4);
    expect(rows.map(({ word, figure, here }) => [word, figure, here])).toEqual([
      ["jab", "1", false],
      ["cross", "2", true],
      ["lead hook", "3", false],
    ]);
  });

  it("that is long has several in a row, and never more than four rows", () => {
    const rows = calledRows(["a", "b", "c", "d", "e", "f"], 3);
    expect(rows.map(({ word, figure }) => [word, figure])).toEqual([
      ["a, b", "1 to 2"],
      ["c, d", "3 to 4"],
      ["e, f", "5 to 6"],
    ]);
    expect(rows.map(({ here }) => here)).toEqual([false, true, false]);
    expect(calledRows(Array(40).fill("jab"), null).length).toBeLessThanOrEqual(4);
  });

  it("that grows stands in its pieces, the new one marked, and never in more than four rows", () => {
    const rows = calledRows(["jab", "cross", "lead hook", "jab"], 0, [2, 1, 1]);
    expect(rows.map(({ word, figure, here }) => [word, figure, here])).toEqual([
      ["jab, cross", "1", false],
      ["lead hook", "2", false],
      ["jab", "new", true],
    ]);
    const many = calledRows(["a", "b", "c", "d", "e", "f"], null, [1, 1, 1, 1, 1, 1]);
    expect(many.map(({ word, figure }) => [word, figure])).toEqual([
      ["a; b; c", "1 to 3"],
      ["d", "4"],
      ["e", "5"],
      ["f", "new"],
    ]);
  });

  it("without a pulse marks none", () => {
    expect(calledRows(["jab"], null)[0]?.here).toBe(false);
  });
});
