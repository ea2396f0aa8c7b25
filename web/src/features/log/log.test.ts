// @vitest-environment jsdom

import { beforeEach, describe, expect, it } from "vitest";
import { folds } from "../../charts/score/layout";
import { member, type Piece } from "../../domain/clock/crew";
import { logged, recordOf } from "../../domain/clock/record";
import { add, end, newRun, resume, swap } from "../../domain/clock/run";
import { flagged, forgetWritten, keepWritten, readStrikes, recallWritten } from "../../domain/outbox/written";
import { livedBy, partsOf, trace } from "./drawing";

const T0 = 1_000_000;
const runa = member(0, { id: 3, name: "Runa Velde" });

describe("the record of a run", () => {
  const run = () => {
    const begun = resume(newRun("r", 10), T0, 120);
    return end(swap(add(begun, T0 + 30_000, 120, 10), T0 + 60_000, 120), T0 + 80_000, 120);
  };

  it("tells what was played, where the clock stood, and the swaps", () => {
    const record = recordOf(run(), [runa], 0, undefined);
    expect(record.played).toEqual([
      { from_s: -10, to_s: 20, shift: 0 },
      { from_s: 20, to_s: 40, shift: 0 },
      { from_s: 40, to_s: 60, shift: 1 },
    ]);
    expect(record.stood).toEqual([{ at_s: 20, seconds: 10 }]);
    expect(record.of).toBe(1);
  });

  it("says nothing of strikes where there was no sensor, and that none were struck where there was one", () => {
    expect(recordOf(run(), [runa], 0, undefined).strikes).toBeNull();
    const sensed = recordOf(run(), [{ ...runa, sensor: "simulated" }], 0, { heart: [[1, 120]], strikes: [] });
    expect(sensed.strikes).toEqual([]);
    expect(sensed.simulated).toBe(true);
  });

  it("is of whoever comes first, and of all who have a name", () => {
    expect(logged([member(0, null), member(1, null), member(2, { id: 9, name: "Ife Brook" })])).toEqual([0, 2]);
  });
});

describe("what is written into the log", () => {
  beforeEach(() => localStorage.clear());

  it("is kept for each person until it is saved, and what is broken is begun anew", () => {
    keepWritten("r", 1, { ...recallWritten("r", 1), rpe: 8, note: "Left side slow." });
    expect(recallWritten("r", 1)).toMatchObject({ rpe: 8, note: "Left side slow." });
    expect(recallWritten("r", 0).rpe).toBeNull();
    localStorage.setItem("yoisho.log.r.0", "{half");
    expect(recallWritten("r", 0).note).toBe("");
    forgetWritten("r");
    expect(recallWritten("r", 1).rpe).toBeNull();
  });

  it("reads a count of strikes, or nothing", () => {
    expect(["1129", " 40 ", "", "many", "99999"].map(readStrikes)).toEqual([1129, 40, null, null, null]);
  });

  it("marks a niggle with a touch and takes it off with another, each side for itself", () => {
    const left = flagged([], "wrist", "left");
    const both = flagged(left, "wrist", "right");
    expect(both).toHaveLength(2);
    expect(flagged(both, "wrist", "left")).toEqual([{ where: "wrist", side: "right" }]);
  });
});

describe("the drawing of what was done", () => {
  const all = folds(
    [
      { start_s: 0, total_s: 100 },
      { start_s: 100, total_s: 100 },
    ],
    new Set(),
    408,
  );

  it("breaks the heart's line at the parts, and dots it where the strap was off", () => {
    const heart: [number, number][] = [
      [0, 90],
      [1, 91],
      [40, 120],
      [41, 121],
      [100, 140],
      [101, 141],
    ];
    const lines = trace(heart, all, 4);
    expect(lines.map(({ part, gap, points }) => [part, gap, points.length])).toEqual([
      [0, false, 2],
      [0, true, 2],
      [0, false, 2],
      [1, false, 2],
    ]);
  });

  it("draws no line over what was skipped", () => {
    const heart: [number, number][] = [
      [0, 90],
      [1, 90],
      [95, 150],
      [96, 150],
    ];
    expect(trace(heart, all, 4).filter((line) => line.gap)).toEqual([]);
  });

  it("knows where the parts are, and makes the other's turn a rest", () => {
    const piece = (start_s: number, part: number, turn: number | null) =>
      ({ start_s, seconds: 30, part, turn, kind: "work", tempo: "power", demand_frac: 1.2, strikes: 20 }) as Piece;
    const timeline = [piece(0, 0, null), piece(30, 1, 0), piece(60, 1, 1)];
    expect(partsOf(timeline)).toEqual([
      { start_s: 0, total_s: 30 },
      { start_s: 30, total_s: 60 },
    ]);
    expect(livedBy(timeline, 0, 2, 0).map(({ kind }) => kind)).toEqual(["work", "work", "rest"]);
    expect(livedBy(timeline, 1, 2, 0).map(({ kind }) => kind)).toEqual(["work", "rest", "work"]);
  });
});
