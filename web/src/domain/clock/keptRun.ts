/** Runs kept on this device with the plan they follow, until the server has their log: a reload loses nothing. */

import type { Schemas } from "../../api/client";
import { isOwn, type Owner, ownerNow } from "../device/owner";
import { shelf } from "../device/shelf";
import { type Member, newCrew } from "./crew";
import { end, newRun, type Run, waitForTheEnd } from "./run";
import { steady } from "./steady";

export interface KeptRun {
  plan: Schemas["RunPlan"];
  run: Run;
  crew: Member[];
  /** It was logged, and the log is on its way: the session may be run again meanwhile. */
  logged?: boolean;
}

interface Written extends KeptRun {
  owner: Owner | null;
  /** What the device's time was ahead of the page's clock: the next page has another. */
  ahead_ms: number;
}

function readRun(value: unknown): Written | null {
  const kept = value as Partial<Written> | null;
  if (!kept?.run?.runId || !kept.plan?.timeline || !kept.plan.document) return null;
  const { plan, crew = newCrew(plan), ahead_ms = steady.ahead_ms, owner = null, logged = false } = kept;
  const run = { ...newRun(kept.run.runId, plan.count_in_s), ...kept.run };
  return { plan, run, crew, ahead_ms, owner, logged };
}

const runs = shelf<Written>("runs", 1, readRun);

export function keepRun(kept: KeptRun): void {
  runs.set({ logged: false, ...kept, owner: ownerNow(), ahead_ms: steady.ahead_ms }, kept.run.runId);
}

/** A run of another page on the clock of this one. */
function moved(run: Run, by_ms: number): Run {
  const on = (moment: number | null) => (moment === null ? null : moment + by_ms);
  return {
    ...run,
    anchorMs: on(run.anchorMs),
    endedAtMs: on(run.endedAtMs),
    waitsSinceMs: on(run.waitsSinceMs),
  };
}

function recalled(runId: string): KeptRun | null {
  const kept = runs.get(runId);
  if (!kept || !isOwn(kept.owner)) return null;
  const { plan, run, crew, logged, ahead_ms } = kept;
  return { plan, run: moved(run, ahead_ms - steady.ahead_ms), crew, logged };
}

/** All runs of the coach who is signed in. */
const all = (): KeptRun[] =>
  runs.ids().flatMap((runId) => {
    const kept = recalled(runId);
    return kept ? [kept] : [];
  });

/** The run of a session that is on the floor, or about to be, or not logged yet. */
export const recallRun = (sessionId: number | null): KeptRun | null =>
  all().find(({ plan, logged }) => plan.session_id === sessionId && !logged) ?? null;

/** The run with that id, whether it was logged or not. */
export const recallRunById = (runId: string): KeptRun | null => recalled(runId);

export const forgetRun = (runId: string): void => runs.remove(runId);

/** Its log is on its way, or has come back. */
export function markLogged(runId: string, logged: boolean): void {
  const kept = runs.get(runId);
  if (kept) runs.set({ ...kept, logged }, runId);
}

/** The run as it is now: one whose bell has long gone is taken as ended. */
export function settled(kept: KeptRun, now: number): KeptRun {
  const { run, plan } = kept;
  if (run.endedAtMs !== null || run.anchorMs === null) return kept;
  const here = waitForTheEnd(run, now, plan.total_s, plan.timeline);
  if (here !== run) return { ...kept, run: here };
  const over = end(run, now, plan.total_s);
  return over.anchor_s >= plan.total_s ? { ...kept, run: over } : kept;
}

/** Runs that were begun and are not logged. */
export const waitingRuns = (now: number): KeptRun[] =>
  all()
    .filter(({ run, logged }) => run.startedAt && !logged)
    .map((kept) => settled(kept, now));
