import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { under } from "./under";

const interval = {
  start_s: 60,
  seconds: 30,
  kind: "work",
  tempo: "all-out",
  demand_frac: 1.7,
  rounds: [
    { turn: 1, of: 1 },
    { turn: 2, of: 8 },
  ],
  part: 0,
  strikes: 40.2,
  limbs: { "left hand": 20.1, "right hand": 20.1 },
  modality: "reflex-bag",
  reps: null,
  open_ended: false,
  calls: ["jab", "cross"],
  partner: false,
  pulse_per_min: 0,
  hatch: null,
} as Schemas["TimelineInterval"];

describe("the interval under the cursor", () => {
  it("is told with its round, its modality, its call and its strikes", () => {
    expect(under(interval, 65, () => "all out")).toBe(
      "1:05 · round 2 of 8 · all out 0:30, reflex bag · jab, cross · about 40 strikes: left hand 20, right hand 20",
    );
  });

  it("is counted where reps are, and the partner's turn is a rest", () => {
    expect(under({ ...interval, reps: 20, calls: [], strikes: 0 }, 60, () => "power")).toBe(
      "1:00 · round 2 of 8 · power 20 reps, reflex bag",
    );
    const waiting = { ...interval, partner: true, modality: null, calls: [], strikes: 0 };
    expect(under(waiting, 60, () => "rest")).toContain("rest, the partner works 0:30");
  });
});
