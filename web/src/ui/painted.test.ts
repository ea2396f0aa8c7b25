import { describe, expect, it } from "vitest";
import { marked, painted } from "./painted";

const spans = [
  { start: 0, end: 4, kind: "dose" as const },
  { start: 5, end: 10, kind: "effort" as const },
];

describe("a painted line", () => {
  it("loses no character, whatever is known of it", () => {
    for (const text of ["3:00 power bag", "3:00 pow", "", "2:00 power"]) {
      const pieces = painted(text, "3:00 power", spans);
      expect(pieces.map((piece) => piece.text).join("")).toBe(text);
    }
  });

  it("marks the word that cannot be read, and a space where something is missing at the end", () => {
    const faulty = (text: string, from: number) =>
      marked(painted(text, "3:00 power", spans), from)
        .filter((piece) => piece.fault)
        .map((piece) => piece.text)
        .join("");
    expect(faulty("3:00 pwer bag", 5)).toBe("pwer");
    expect(faulty("3:00 power", 0)).toBe("3");
    expect(faulty("8 x (", 5)).toBe("\u00a0");
    const pieces = marked(painted("3:00 pwer bag", "3:00 power", spans), 5);
    expect(pieces.map((piece) => piece.text).join("")).toBe("3:00 pwer bag");
  });

  it("keeps its colours as far as the text has not changed", () => {
    expect(painted("3:00 power bag", "3:00 power", spans).map((piece) => piece.kind)).toEqual([
      "dose",
      null,
      "effort",
      null,
    ]);
    expect(painted("2:00 power", "3:00 power", spans)).toEqual([{ start: 0, text: "2:00 power", kind: null }]);
  });
});
