import { describe as about, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
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
    bands: {
      seconds: [0, 1],
      sprint_left: { low: [0.9, 0], high: [0.95, 0.1] },
      lactic_left: { low: [1, 0.3], high: [1, 0.5] },
      uptake_frac: { low: [0.1, 0.9], high: [0.1, 1] },
      heart_rate_bpm: heart && { low: heart, high: heart },
    },
    heart_targets: [{ start_s: 0, end_s: 240, low_bpm: 150, high_bpm: 170 }],
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

  it("have the soft band of each, and the target of the heart alone", () => {
    const lanes = lanesOf(reading([60, 180]));
    expect(lanes.map((lane) => lane.band?.high[1])).toEqual([0.1, 0.5, 1, 180]);
    expect(lanes.map((lane) => lane.wanted.length)).toEqual([0, 0, 0, 1]);
    expect(lanes[3]?.wanted[0]).toMatchObject({ low: 150, high: 170 });
  });

  it("leave the heart out where it is not to be shown", () => {
    expect(lanesOf(reading(null)).map((lane) => lane.name)).toEqual(["Sprint", "Lactic", "Aerobic"]);
  });

  it("are none where there is nothing to judge", () => {
    expect(lanesOf(null)).toEqual([]);
  });
});
