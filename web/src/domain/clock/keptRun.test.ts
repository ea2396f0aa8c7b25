// @vitest-environment jsdom

import { beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { setOwner } from "../device/owner";
import { member } from "./crew";
import { forgetRun, keepRun, markLogged, recallRun, recallRunById, waitingRuns } from "./keptRun";
import { end, newRun, pause, resume } from "./run";

const plan = {
  session_id: 7,
  total_s: 60,
  timeline: [],
  title: "Bursts",
  document: {},
} as unknown as Schemas["RunPlan"];
const crew = [member(0, { id: 3, name: "Runa Velde" })];
const T0 = 5_000_000;

describe("runs kept on this device", () => {
  beforeEach(() => {
    localStorage.clear();
    setOwner({ coach: 1, club: 1 });
  });

  it("come back as they were, with the plan they follow", () => {
    const run = resume(newRun("a", 10), T0, 60);
    keepRun({ plan, run, crew });
    expect(recallRun(7)).toEqual({ plan, run, crew, logged: false });
    forgetRun("a");
    expect(recallRun(7)).toBeNull();
  });

  it("stay until their log has arrived, while the session is run again", () => {
    keepRun({ plan, crew, run: end(resume(newRun("a", 10), T0, 60), T0 + 80_000, 60) });
    markLogged("a", true);
    expect(recallRun(7)).toBeNull();
    expect(waitingRuns(T0)).toEqual([]);
    keepRun({ plan, crew, run: newRun("b", 10) });
    expect(recallRun(7)?.run.runId).toBe("b");
    expect(recallRunById("a")?.run.runId).toBe("a");
    markLogged("a", false);
    expect(waitingRuns(T0).map(({ run }) => run.runId)).toEqual(["a"]);
  });

  it("are shown to nobody but the coach who ran them", () => {
    keepRun({ plan, crew, run: resume(newRun("a", 10), T0, 60) });
    setOwner({ coach: 2, club: 2 });
    expect(recallRun(7)).toBeNull();
    expect(waitingRuns(T0)).toEqual([]);
    setOwner({ coach: 1, club: 1 });
    expect(recallRun(7)?.run.runId).toBe("a");
  });

  it("stay at their second where the device's time was changed before the next page", () => {
    keepRun({ plan, crew, run: resume(newRun("a", 10), T0, 60) });
    const { v, value } = JSON.parse(localStorage.getItem("yoisho.runs.a") ?? "");
    // The page that wrote it saw the device's time put back by an hour; this page has never known another.
    const changed = { v, value: { ...value, ahead_ms: value.ahead_ms - 3_600_000 } };
    localStorage.setItem("yoisho.runs.a", JSON.stringify(changed));
    expect(recallRun(7)?.run.anchorMs).toBeCloseTo(T0 - 3_600_000, 0);
  });

  it("are not read from what is broken", () => {
    localStorage.setItem("yoisho.runs.a", "{half");
    expect(recallRunById("a")).toBeNull();
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

  it("wait where the coach has not ended what is open-ended", () => {
    const open = { ...plan, timeline: [{ ...plan.timeline[0], start_s: 0, seconds: 60, open_ended: true }] };
    keepRun({ plan: open as typeof plan, crew, run: resume(newRun("a", 10), T0, 60) });
    const [kept] = waitingRuns(T0 + 600_000);
    expect(kept?.run.endedAtMs).toBeNull();
    expect(kept?.run.waitsSinceMs).not.toBeNull();
  });

  it("stay held for as long as they are held", () => {
    keepRun({ plan, crew, run: pause(resume(newRun("a", 10), T0, 60), T0 + 15_000, 60) });
    expect(waitingRuns(T0 + 3_600_000)[0]?.run.endedAtMs).toBeNull();
    expect(end(newRun("b", 10), T0, 60).endedAtMs).toBe(T0);
  });
});
