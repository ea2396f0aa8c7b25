import { describe, expect, it } from "vitest";
import type { Piece } from "../../domain/clock/crew";
import { calledStroke } from "./Showing";

const stroke = (word: string) => ({ word, bend: "straight", side: "left", height: "head" });
const piece = { start_s: 60, seconds: 15, strokes: [stroke("jab"), stroke("cross")] } as unknown as Piece;
const calls = [
  { at_s: 40, kind: "combination" },
  { at_s: 60.9, kind: "effort" },
  { at_s: 62, kind: "combination" },
  { at_s: 64, kind: "combination" },
  { at_s: 67, kind: "combination" },
];

describe("what is shown", () => {
  it("marks the strike that is being called, over again where it is called twice, none before the first", () => {
    expect([61, 62, 63.9, 64, 70].map((at) => calledStroke(calls, piece, at))).toEqual([-1, 0, 0, 1, 0]);
    expect(calledStroke(calls, { ...piece, strokes: [] }, 70)).toBe(-1);
  });
});
