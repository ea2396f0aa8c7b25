/** What the core and the browser both work out: the core's own cases, and its answers. */

import { describe, expect, it } from "vitest";
import vectors from "../../api/vectors.json";
import { whose } from "./crew";
import { covered, effortsDone, newRun, type Span } from "./run";
import { type CueKind, soundOf } from "./sounds";

describe("what the core and the browser both know", () => {
  it("is how much of an effort was played, and whether that is done", () => {
    for (const { played, from_s, to_s, covered_s, done } of vectors.coverage) {
      const spans = played.map(([from = 0, to = 0]): Span => [from, to, 0]);
      expect(covered(spans, from_s, to_s), JSON.stringify(played)).toBeCloseTo(covered_s, 5);
      const run = { ...newRun("r", 10), spans };
      expect(effortsDone(run, [{ start_s: from_s, end_s: to_s }]) === 1, JSON.stringify({ played, from_s })).toBe(done);
    }
  });

  it("is how a bell sounds: on the floor as in a track", () => {
    for (const { kind, rate, length, at, values } of vectors.sounds) {
      const samples = soundOf(kind as CueKind, rate);
      const loudest = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
      expect(samples.length, kind).toBe(length);
      at.forEach((index, place) => {
        expect((samples[index] ?? 0) / loudest, `${kind} at ${index}`).toBeCloseTo(values[place] ?? 0, 2);
      });
    }
  });

  it("is whose turn it is, of however many, after swaps by hand", () => {
    for (const { turn, of, shift, place } of vectors.turns) expect(whose(turn, of, shift)).toBe(place);
  });
});
