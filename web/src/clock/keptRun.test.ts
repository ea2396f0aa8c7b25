import { beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { forgetRun, keepRun, recallRun, waitingRuns } from "./keptRun";
import { end, newRun, pause, resume } from "./run";

const plan = { session_id: 7, total_s: 60, timeline: [], title: "Bursts" } as unknown as Schemas["RunPlan"];
const T0 = 5_000_000;

describe("runs kept on this device", () => {
  beforeEach(() => localStorage.clear());

  it("come back as they were, with the plan they follow", () => {
    const run = resume(newRun("a", 10), T0, 60);
    keepRun({ plan, run });
    expect(recallRun(7)).toEqual({ plan, run });
    forgetRun(7);
    expect(recallRun(7)).toBeNull();
  });

  it("are not read from what is broken", () => {
    localStorage.setItem("yoisho.run.7", "{half");
    expect(recallRun(7)).toBeNull();
    expect(waitingRuns(T0)).toEqual([]);
  });

  it("wait for their log only once begun", () => {
    keepRun({ plan, run: newRun("a", 10) });
    expect(waitingRuns(T0)).toEqual([]);
  });

  it("are over when their last bell has gone while nobody looked", () => {
    keepRun({ plan, run: resume(newRun("a", 10), T0, 60) });
    expect(waitingRuns(T0 + 20_000)[0]?.run.endedAtMs).toBeNull();
    expect(waitingRuns(T0 + 3_600_000)[0]?.run.endedAtMs).not.toBeNull();
  });

  it("stay held for as long as they are held", () => {
    keepRun({ plan, run: pause(resume(newRun("a", 10), T0, 60), T0 + 15_000, 60) });
    expect(waitingRuns(T0 + 3_600_000)[0]?.run.endedAtMs).toBeNull();
    expect(end(newRun("b", 10), T0, 60).endedAtMs).toBe(T0);
  });
});
