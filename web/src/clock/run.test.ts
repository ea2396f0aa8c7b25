import { describe, expect, it } from "vitest";
import { effortsDone, end, isRunning, jump, newRun, pause, played_s, position, resume } from "./run";

const TOTAL = 240;
const T0 = 1_000_000;
const efforts = Array.from({ length: 8 }, (_, turn) => ({ start_s: turn * 30, end_s: turn * 30 + 20 }));
const started = () => resume(newRun("run", 10), T0, TOTAL);

describe("the floor clock", () => {
  it("counts in from below zero and stands until it is started", () => {
    expect(position(newRun("run", 10), T0)).toBe(-10);
    expect(position(newRun("run", 10), T0 + 60_000)).toBe(-10);
    expect(position(started(), T0 + 10_000)).toBe(0);
  });

  it("stands still while it is held and goes on from there", () => {
    const held = pause(started(), T0 + 25_000, TOTAL);
    expect(isRunning(held)).toBe(false);
    expect(position(held, T0 + 500_000)).toBe(15);
    expect(position(resume(held, T0 + 500_000, TOTAL), T0 + 505_000)).toBe(20);
  });

  it("keeps the moment it was first started", () => {
    const again = resume(pause(started(), T0 + 1000, TOTAL), T0 + 9000, TOTAL);
    expect(again.startedAt).toBe(new Date(T0).toISOString());
  });

  it("comes back at the right second after a reload", () => {
    const kept = JSON.parse(JSON.stringify(started()));
    expect(position(kept, T0 + 100_000)).toBe(90);
  });

  it("jumps while running and while held, never outside the session", () => {
    expect(position(jump(started(), T0 + 15_000, TOTAL, 60), T0 + 16_000)).toBe(61);
    const held = jump(pause(started(), T0 + 15_000, TOTAL), T0 + 16_000, TOTAL, 999);
    expect(position(held, T0 + 99_000)).toBe(TOTAL);
    expect(position(jump(started(), T0, TOTAL, -50), T0)).toBe(0);
  });

  it("counts what was played, the count-in left out", () => {
    expect(played_s(end(started(), T0 + 70_000, TOTAL))).toBe(60);
  });

  it("does not run past the last bell, however late it is told", () => {
    const over = end(started(), T0 + 9_999_000, TOTAL);
    expect(over.anchor_s).toBe(TOTAL);
    expect(played_s(over)).toBe(TOTAL);
    expect(effortsDone(over, efforts)).toBe(8);
  });

  it("does not start again once it has ended", () => {
    const over = end(started(), T0 + 20_000, TOTAL);
    expect(resume(over, T0 + 30_000, TOTAL)).toBe(over);
  });

  it("does not count an effort that was skipped", () => {
    const skipped = jump(started(), T0 + 15_000, TOTAL, 60);
    expect(effortsDone(end(skipped, T0 + 15_000 + 180_000, TOTAL), efforts)).toBe(6);
  });

  it("counts an effort played in two pieces, and one played twice only once", () => {
    const inPieces = resume(pause(started(), T0 + 20_000, TOTAL), T0 + 60_000, TOTAL);
    expect(effortsDone(end(inPieces, T0 + 75_000, TOTAL), efforts)).toBe(1);
    const back = jump(started(), T0 + 31_000, TOTAL, 0);
    expect(effortsDone(end(back, T0 + 31_000 + 21_000, TOTAL), efforts)).toBe(1);
  });
});
