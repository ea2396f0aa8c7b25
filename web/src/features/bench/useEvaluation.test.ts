// @vitest-environment jsdom

import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { withRangesOf } from "./useEvaluation";

const evaluation = (kcal: number, low: number, high: number, grade: string) =>
  ({
    total_s: 240,
    reading: { figures: { kcal: { value: kcal, low, high } }, fade_onset: { bout: kcal }, verdict: { grade } },
  }) as unknown as Schemas["Evaluation"];

describe("an answer in two steps", () => {
  it("shows the new verdict, and no number without a range", () => {
    const shown = withRangesOf(evaluation(60, 50, 70, "Off target"), evaluation(80, 80, 80, "On target"));
    expect(shown.reading?.verdict.grade).toBe("On target");
    expect(shown.reading?.figures.kcal).toEqual({ value: 60, low: 50, high: 70 });
  });

  it("is the best guess alone where nothing came before it, or where there is no work", () => {
    const guess = evaluation(80, 80, 80, "On target");
    expect(withRangesOf(undefined, guess)).toBe(guess);
    const none = { ...guess, reading: null };
    expect(withRangesOf(guess, none)).toBe(none);
  });
});
