import { beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { member } from "./crew";
import { forgetRun, keepRun, recallRun, waitingRuns } from "./keptRun";
import { end, newRun, pause, resume } from "./run";

const plan = { session_id: 7, total_s: 60, timeline: [], title: "Bursts" } as unknown as Schemas["RunPlan"];
const crew = [member(0, { id: 3, name: "Runa Velde" })];
const T0 = 5_000_000;

describe("runs kept on this device", () => {
  beforeEach(() => localStorage.clear());

  it("come back as they were, with the plan they follow", () => {
    const run = resume(newRun("a", 10), T0, 60);
    keepRun({ plan, run, crew });
    expect(recallRun(7)).toEqual({ plan, run, crew });
    forgetRun(7);
    expect(recallRun(7)).toBeNull();
  });

  it("stay at their second where the device's time was changed before the next page", () => {
    keepRun({ plan, crew, run: resume(newRun("a", 10), T0, 60) });
    const written = JSON.parse(localStorage.getItem("yoisho.run.7") ?? "");
    // The page that wrote it saw the device's time put back by an hour; this page has never known another.
    localStorage.setItem("yoisho.run.7", JSON.stringify({ ...written, ahead_ms: written.ahead_ms - 3_600_000 }));
    expect(recallRun(7)?.run.anchorMs).toBeCloseTo(T0 - 3_600_000, 0);
  });

  it("are not read from what is broken", () => {
    localStorage.setItem("yoisho.run.7", "{half");
    expect(recallRun(7)).toBeNull();
    expect(waitingRuns(T0)).toEqual([]);
  });

  it("wait for their log only once begun", () => {
    keepRun({ plan, crew, run: newRun("a", 10) });
    expect(waitingRuns(T0)).toEqual([]);
  });

  it("are over when their last bell has gone while nobody looked", () => {
    keepRun({ plan, crew, run: resume(newRun("a", 10), T0, 60) });
    expect(waitingRuns(T0 + 20_000)[0]?.run.endedAtMs).toBeNull();
    expect(waitingRuns(T0 + 3_600_000)[0]?.run.endedAtMs).not.toBeNull();
  });

  it("stay held for as long as they are held", () => {
    keepRun({ plan, crew, run: pause(resume(newRun("a", 10), T0, 60), T0 + 15_000, 60) });
    expect(waitingRuns(T0 + 3_600_000)[0]?.run.endedAtMs).toBeNull();
    expect(end(newRun("b", 10), T0, 60).endedAtMs).toBe(T0);
  });
});
