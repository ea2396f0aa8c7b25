import { describe, expect, it } from "vitest";
import { type Board, lateWithoutNetwork, linesOf, nextWave, shownAt, swappedAt, waveAt, withRows } from "./board";

const board: Board = {
  revision: 0,
  part: 1,
  doing: [{ station: "floor", modality: "shadow", tempo: "flow" }],
  waves: [
    { number: 1, start_s: 300, end_s: 480, change_s: 0, swap_s: 390 },
    { number: 2, start_s: 510, end_s: 690, change_s: 30, swap_s: 600 },
  ],
  people: [
    { name: "Abel", person_id: 1, label: "Abel", row: ["bag 1", "pads 1 hit"], easy: false, holds: true },
    { name: "Bea", person_id: null, label: "Bea", row: ["floor", "pads 1 hold"], easy: false, holds: true },
    { name: "Milo", person_id: null, label: "Milo", row: ["away", "bag 1"], easy: false, holds: true },
  ],
};

describe("the board of a class", () => {
  it("knows the wave that is on, and in a change the one before it", () => {
    expect([0, 299, 300, 480, 509, 510, 900].map((at) => waveAt(board, at))).toEqual([0, 0, 1, 1, 1, 2, 2]);
    expect(nextWave(board, 495)).toBe(2);
  });
  it("stands station by station, bags first, with who is there and who comes", () => {
    expect(linesOf(board, 1)).toEqual([
      { station: "bag 1", now: "Abel", next: "Milo" },
      { station: "pads 1 hit", now: "", next: "Abel" },
      { station: "pads 1 hold", now: "", next: "Bea" },
      { station: "floor", now: "Bea", next: "" },
    ]);
    expect(linesOf(board, 0).map((line) => line.now)).toEqual(["", ""]);
  });
  it("tells roles at the pads as they are after the swap at half of the wave", () => {
    expect([389, 390, 500, 600].map((at) => swappedAt(board, at))).toEqual([false, true, false, true]);
    expect(shownAt("pads 1 hit", true)).toBe("pads 1 hold");
    expect(shownAt("pads 1 hold", true)).toBe("pads 1 hit");
    expect(shownAt("bag 1", true)).toBe("bag 1");
  });
  it("puts a latecomer off the bag where no network can solve it, and leaves what is done", () => {
    const told = lateWithoutNetwork(board, "Nell", null, 2);
    expect(told.people.map((each) => each.row[0])).toEqual(["bag 1", "floor", "away", "away"]);
    expect(told.people[3]?.row).toEqual(["away", "floor"]);
    expect(withRows(board, told).people[3]).toMatchObject({ name: "Nell", label: "" });
  });
});
