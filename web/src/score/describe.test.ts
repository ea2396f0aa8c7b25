import { describe as about, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { describe } from "./describe";
import { lanesOf } from "./lanes";

const part = { text: "8 × (20 all out, 10 rest)", start_s: 0, total_s: 240, work_s: 160, rest_s: 80 };
const reading = (heart: number[] | null) =>
  ({
    traces: {
      seconds: [0, 1],
      sprint_left: [0.93, 0.02],
      lactic_left: [1, 0.4],
      uptake_frac: [0.1, 1],
      heart_rate_bpm: heart,
    },
    hr_rest_bpm: 52,
    hr_max_bpm: 192,
  }) as unknown as Schemas["Reading"];
const evaluation = (of: Schemas["Reading"] | null) =>
  ({ parts: [part], total_s: 240, reading: of }) as unknown as Schemas["Evaluation"];

about("the score in words", () => {
  it("says how long, what, and how far the stores go down", () => {
    expect(describe(evaluation(reading([60, 180])), ["Twenty-tens"])).toBe(
      "Session of 4:00. Twenty-tens, 4:00: 8 × (20 all out, 10 rest). " +
        "The sprint store goes down to 2 percent, the lactic store to 40 percent.",
    );
  });

  it("says nothing of stores that were not worked out", () => {
    expect(describe(evaluation(null), [])).toBe("Session of 4:00. Part 1, 4:00: 8 × (20 all out, 10 rest).");
  });
});

about("the staves", () => {
  it("are the three stores and the heart, each with its own shape", () => {
    const lanes = lanesOf(reading([60, 180]));
    expect(lanes.map((lane) => lane.name)).toEqual(["Sprint", "Lactic", "Aerobic", "Heart"]);
    expect(new Set(lanes.map((lane) => lane.shape)).size).toBe(4);
  });

  it("leave the heart out where it is not to be shown", () => {
    expect(lanesOf(reading(null)).map((lane) => lane.name)).toEqual(["Sprint", "Lactic", "Aerobic"]);
  });

  it("are none where there is nothing to judge", () => {
    expect(lanesOf(null)).toEqual([]);
  });
});
