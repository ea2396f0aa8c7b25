import { describe, expect, it } from "vitest";
import { clock, readClock } from "./time";

describe("times", () => {
  it("are shown as minutes and seconds", () => {
    expect([0, 9, 75, 600, 3661].map(clock)).toEqual(["0:00", "0:09", "1:15", "10:00", "61:01"]);
  });

  it("are read with or without the colon", () => {
    expect(["20", "0:20", "1:30", " 2:05 "].map(readClock)).toEqual([20, 20, 90, 125]);
  });

  it("are not guessed", () => {
    expect(["", "1:75", "a", "1:2", "-5", "1:30:00"].map(readClock)).toEqual([null, null, null, null, null, null]);
  });

  it("come back as they went", () => {
    for (const seconds of [1, 59, 60, 61, 599, 3600]) expect(readClock(clock(seconds))).toBe(seconds);
  });
});
