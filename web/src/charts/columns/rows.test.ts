import { describe, expect, it } from "vitest";
import { ROWS } from "./rows";

const figure = (value: number) => ({ value, low: value, high: value });
const compared = {
  figures: { lactic_deep_min: figure(7.5), strikes: figure(640), fade_last: figure(0.1) },
  total_s: 1200,
  work_s: 610,
};

describe("what proposals are compared by", () => {
  it("is read from the figures where they are, and left out where they are not", () => {
    const told = ROWS.flatMap((row) => {
      const found = row.figure(compared);
      return found ? [`${row.name}: ${row.show(found)}`] : [];
    });
    expect(told).toEqual([
      "Lactic store under 55 %: 7:30",
      "Fade of the last effort: about 10 %",
      "Strikes: about 640",
      "Work: 10:10",
      "Time: 20:00",
    ]);
  });

  it("tells a difference in the unit of its row", () => {
    const by = (name: string, difference: number) => ROWS.find((row) => row.name === name)?.by(difference);
    expect(by("Lactic store under 55 %", 1.5)).toBe("1:30");
    expect(by("Strikes", 49.7)).toBe("50");
    expect(by("Fade of the last effort", 0.12)).toBe("12 points");
    expect(by("Time", 75)).toBe("1:15");
  });
});
