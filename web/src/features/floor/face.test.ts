import { describe, expect, it } from "vitest";
import { calledRows } from "./face";

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

  it("without a pulse marks none", () => {
    expect(calledRows(["jab"], null)[0]?.here).toBe(false);
  });
});
