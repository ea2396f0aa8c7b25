import { describe, expect, it } from "vitest";
import {
  add,
  countRep,
  effortsDone,
  end,
  endOpenEnded,
  endPiece,
  isRunning,
  jump,
  lasted_s,
  newRun,
  pause,
  played_s,
  playedBetween_s,
  position,
  repsLeft,
  resume,
  standing_s,
  swap,
  waitForTheEnd,
  waitsAt_s,
} from "./run";

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

describe("reps", () => {
  const piece = { start_s: 0, seconds: 20, reps: 3 };
  const begun = () => resume(newRun("run", 0), T0, TOTAL);
  const counted = (count: number, now: number) =>
    Array.from({ length: count }).reduce<ReturnType<typeof begun>>((run) => countRep(run, now, TOTAL, piece), begun());

  it("are counted down, and the last one moves the clock on to the rest", () => {
    const two = counted(2, T0 + 5000);
    expect(repsLeft(two, piece)).toBe(1);
    expect(position(two, T0 + 5000)).toBe(5);
    const three = countRep(two, T0 + 6000, TOTAL, piece);
    expect(position(three, T0 + 6000)).toBe(20);
    expect(isRunning(three)).toBe(true);
  });

  it("that took less than the estimate count as a whole effort, and only as the time they took", () => {
    const done = pause(counted(3, T0 + 6000), T0 + 6000, TOTAL);
    expect(effortsDone(done, [{ start_s: 0, end_s: 20 }])).toBe(1);
    expect(played_s(done)).toBe(6);
  });

  it("hold the clock before the end until they are done, and the wait is counted", () => {
    const waiting = waitForTheEnd(counted(2, T0 + 5000), T0 + 20_000, TOTAL, [piece]);
    expect(isRunning(waiting)).toBe(true);
    expect(position(waiting, T0 + 60_000)).toBeCloseTo(20, 1);
    const done = countRep(waiting, T0 + 30_000, TOTAL, piece);
    expect(position(done, T0 + 31_000)).toBeCloseTo(21, 5);
    expect(played_s(pause(done, T0 + 30_000, TOTAL))).toBe(30);
  });

  it("are not counted while the clock is held", () => {
    const held = pause(begun(), T0 + 3000, TOTAL);
    expect(countRep(held, T0 + 4000, TOTAL, piece)).toBe(held);
  });

  it("leave timed intervals alone", () => {
    const run = begun();
    expect(waitForTheEnd(run, T0 + 20_000, TOTAL, [{ start_s: 0, seconds: 20, reps: null }])).toBe(run);
  });
});

describe("open-ended work", () => {
  const open = { start_s: 0, seconds: 30, open_ended: true };
  const pieces = [open, { start_s: 30, seconds: 60 }, { start_s: 90, seconds: 60, open_ended: true }];
  const begun = () => resume(newRun("run", 0), T0, TOTAL);
  const waiting = () => waitForTheEnd(begun(), T0 + 30_000, TOTAL, pieces);

  it("goes on past its stated length until the coach ends it, and so long it has lasted", () => {
    expect(position(waiting(), T0 + 100_000)).toBeCloseTo(30, 1);
    expect(lasted_s(waiting(), T0 + 100_000, open)).toBeCloseTo(100, 5);
    const done = endPiece(waiting(), T0 + 100_000, TOTAL, open);
    expect(position(done, T0 + 101_000)).toBeCloseTo(31, 5);
    expect(played_s(pause(done, T0 + 100_000, TOTAL))).toBe(100);
    expect(effortsDone(done, [{ start_s: 0, end_s: 30 }])).toBe(1);
  });

  it("that is ended sooner was done, and only as long as it was", () => {
    const done = pause(endPiece(begun(), T0 + 12_000, TOTAL, open), T0 + 12_000, TOTAL);
    expect([effortsDone(done, [{ start_s: 0, end_s: 30 }]), played_s(done)]).toEqual([1, 12]);
  });

  it("is done where the coach leaves it, by a skip or by the end of the session, once it has begun", () => {
    const left = end(endOpenEnded(begun(), T0 + 12_000, TOTAL, open), T0 + 12_000, TOTAL);
    expect([effortsDone(left, [{ start_s: 0, end_s: 30 }]), played_s(left)]).toEqual([1, 12]);
    const hardly = begun();
    expect(endOpenEnded(hardly, T0 + 9_000, TOTAL, open)).toBe(hardly);
    expect(endOpenEnded(hardly, T0 + 20_000, TOTAL, { start_s: 0, seconds: 30 })).toBe(hardly);
  });

  it("does not last longer for being looked at", () => {
    const looked = pause(waiting(), T0 + 50_000, TOTAL);
    expect(lasted_s(looked, T0 + 90_000, open)).toBeCloseTo(50, 5);
    const on = waitForTheEnd(resume(looked, T0 + 90_000, TOTAL), T0 + 90_020, TOTAL, pieces);
    expect(lasted_s(on, T0 + 100_000, open)).toBeCloseTo(60, 1);
    const early = resume(pause(begun(), T0 + 10_000, TOTAL), T0 + 20_000, TOTAL);
    expect(lasted_s(early, T0 + 25_000, open)).toBe(15);
  });

  it("is not run past by a page that nobody sees", () => {
    const seen = waitForTheEnd(begun(), T0 + 300_000, TOTAL, pieces);
    expect(position(seen, T0 + 300_000)).toBeCloseTo(30, 1);
    expect(lasted_s(seen, T0 + 300_000, open)).toBeCloseTo(300, 1);
  });

  it("that was left on overnight did not last all night", () => {
    expect(lasted_s(waiting(), T0 + 30_000 + 20 * 3_600_000, open)).toBeLessThanOrEqual(30 + 7200);
  });

  it("says up to where the clock goes by itself", () => {
    expect(waitsAt_s(begun(), pieces)).toBe(30);
    expect(waitsAt_s(endPiece(begun(), T0 + 12_000, TOTAL, open), pieces)).toBe(150);
    expect(waitsAt_s(begun(), [{ start_s: 0, seconds: 30 }])).toBe(Number.POSITIVE_INFINITY);
  });
});

describe("time that is added", () => {
  const begun = () => resume(newRun("run", 0), T0, TOTAL);

  it("lets the clock stand for so long, and then it goes on", () => {
    const more = add(begun(), T0 + 5000, TOTAL, 10);
    expect(position(more, T0 + 9000)).toBe(5);
    expect(standing_s(more, T0 + 9000)).toBe(6);
    expect(position(more, T0 + 16_000)).toBe(6);
    expect(standing_s(more, T0 + 16_000)).toBe(0);
  });

  it("can be added twice, and counts as time that was spent", () => {
    const more = add(add(begun(), T0 + 5000, TOTAL, 10), T0 + 7000, TOTAL, 10);
    expect(standing_s(more, T0 + 7000)).toBe(18);
    expect(played_s(pause(more, T0 + 30_000, TOTAL))).toBe(30);
  });

  it("is not counted where it was cut short", () => {
    const more = add(begun(), T0 + 5000, TOTAL, 10);
    expect(played_s(pause(more, T0 + 7000, TOTAL))).toBe(7);
  });

  it("is nothing while the clock is held", () => {
    const held = pause(begun(), T0 + 5000, TOTAL);
    expect(add(held, T0 + 6000, TOTAL, 10)).toBe(held);
  });
});

describe("partners who change places", () => {
  const begun = () => resume(newRun("run", 0), T0, TOTAL);

  it("leave a mark where they did, and the clock goes on", () => {
    const swapped = swap(started(), T0 + 30_000, TOTAL);
    expect(position(swapped, T0 + 31_000)).toBe(21);
    const ended = end(swap(swapped, T0 + 60_000, TOTAL), T0 + 90_000, TOTAL);
    expect(ended.spans).toEqual([
      [-10, 20, 0],
      [20, 50, 1],
      [50, 80, 2],
    ]);
  });

  it("do so also while the clock is held, and in time that was added", () => {
    expect(isRunning(swap(pause(begun(), T0 + 5000, TOTAL), T0 + 6000, TOTAL))).toBe(false);
    const more = swap(add(begun(), T0 + 5000, TOTAL, 10), T0 + 8000, TOTAL);
    expect(standing_s(more, T0 + 8000)).toBe(7);
    expect(played_s(pause(more, T0 + 20_000, TOTAL))).toBe(20);
  });

  it("do not change anything after the end", () => {
    const over = end(begun(), T0 + 9000, TOTAL);
    expect(swap(over, T0 + 10_000, TOTAL)).toBe(over);
  });
});

describe("what was played of a stretch so far", () => {
  it("is told with what is being played", () => {
    const jumped = jump(resume(newRun("run", 0), T0, TOTAL), T0 + 20_000, TOTAL, 100);
    expect(playedBetween_s(jumped, T0 + 25_000, 0, 100)).toBe(20);
    expect(playedBetween_s(jumped, T0 + 25_000, 90, 200)).toBe(5);
  });
});
