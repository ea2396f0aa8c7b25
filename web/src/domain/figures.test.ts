import { describe, expect, it } from "vitest";
import { clockRange, fadeOnset, failsIn, percentRange, range } from "./figures";

const figure = (value: number, low: number, high: number) => ({ value, low, high });

describe("where the fade starts", () => {
  const onset = (earliest: number | null, latest: number | null, probability = 0.6) =>
    fadeOnset({ bout: earliest, earliest, latest, probability });

  it("is said by its range", () => {
    expect(onset(3, 5)).toBe("effort 3 to 5");
    expect(onset(4, 4)).toBe("effort 4");
  });
  it("says that it may not come at all", () => {
    expect(onset(6, null)).toBe("effort 6 on, if at all");
    expect(onset(null, null, 0)).toBe("nowhere");
    expect(onset(null, null, 0.05)).toBe("hardly");
  });
  it("does not say nowhere beside an effort in which it fails", () => {
    const never = { bout: null, earliest: null, latest: null, probability: 0 };
    expect(fadeOnset(never, { bout: 11, earliest: 10, latest: 14, probability: 0.9 })).toBe("not before it fails");
    expect(fadeOnset(never, never)).toBe("nowhere");
  });
});

describe("a figure", () => {
  it("stands with its range, never alone", () => {
    expect(range(figure(12.4, 9.2, 15.8), 0)).toBe("9 to 16");
    expect(range(figure(347, 312, 381), -1)).toBe("310 to 380");
    expect(range(undefined, 0)).toBe("not known");
  });
  it("is called about where the range is narrower than what is shown", () => {
    expect(range(figure(5, 4.9, 5.1), 0)).toBe("about 5");
  });
  it("in minutes is a clock, in shares percent", () => {
    expect(clockRange(figure(6.4, 5, 8.25))).toBe("5:00 to 8:15");
    expect(percentRange(figure(0.2, 0.14, 0.31))).toBe("14 to 31 %");
    expect(percentRange(figure(0, -0.001, 0.001))).toBe("about 0 %");
  });
});

describe("where it fails", () => {
  const of = (bout: number | null, earliest: number | null, latest: number | null, probability = 1) =>
    failsIn({ bout, earliest, latest, probability }, 16, 628);

  it("is told by its effort, and by its range where there is one", () => {
    expect(of(11, 10, 14)).toBe("Fails in effort 11 of 16; 10 to 14.");
    expect(of(11, 11, 11)).toBe("Fails in effort 11 of 16.");
    expect(of(11, 8, null)).toBe("Fails in effort 11 of 16; 8 on, if at all.");
  });

  it("is told as a chance where the best guess holds to the end", () => {
    expect(of(null, 12, null, 0.3)).toBe(
      "Held to the end, by the best guess; 3 in 10 like this person fail before, from effort 12 on.",
    );
    expect(of(null, 12, null, 0.05)).toBe("Held to the end.");
    expect(of(null, null, null, 0)).toBe("Held to the end.");
  });

  it("is a time where there is one effort alone", () => {
    expect(failsIn({ bout: 1, earliest: 1, latest: 1, probability: 1 }, 1, 378)).toBe("Fails at 6:18.");
    expect(failsIn({ bout: 1, earliest: 1, latest: 1, probability: 1 }, 1, null)).toBe("Fails before its end.");
  });
});
