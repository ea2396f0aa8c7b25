/** Runs kept on this device with the plan they follow, so that a reload or a lost network loses nothing. */

import type { Schemas } from "../api/client";
import { type Member, newCrew } from "./crew";
import { end, newRun, type Run } from "./run";
import { steady } from "./steady";

export interface KeptRun {
  plan: Schemas["RunPlan"];
  run: Run;
  crew: Member[];
}

interface Written extends KeptRun {
  /** What the device's time was ahead of the page's clock: the next page has another. */
  ahead_ms: number;
}

const PREFIX = "yoisho.run.";

export function keepRun(kept: KeptRun): void {
  const written: Written = { ...kept, ahead_ms: steady.ahead_ms };
  localStorage.setItem(PREFIX + kept.plan.session_id, JSON.stringify(written));
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

export function recallRun(sessionId: number): KeptRun | null {
  try {
    const kept = JSON.parse(localStorage.getItem(PREFIX + sessionId) ?? "null") as Partial<Written> | null;
    if (!kept?.run?.runId || !kept.plan?.timeline) return null;
    const run = { ...newRun(kept.run.runId, kept.plan.count_in_s), ...kept.run };
    const { plan, crew = newCrew(plan), ahead_ms = steady.ahead_ms } = kept;
    return { plan, run: moved(run, ahead_ms - steady.ahead_ms), crew };
  } catch {
    return null;
  }
}

export function forgetRun(sessionId: number): void {
  localStorage.removeItem(PREFIX + sessionId);
}

/** Runs that were begun and are not logged. One whose bell has long gone is taken as ended. */
export function waitingRuns(now: number): KeptRun[] {
  const found: KeptRun[] = [];
  for (let index = 0; index < localStorage.length; index++) {
    const key = localStorage.key(index);
    if (!key?.startsWith(PREFIX)) continue;
    const kept = recallRun(Number(key.slice(PREFIX.length)));
    if (!kept?.run.startedAt) continue;
    const over =
      kept.run.endedAtMs === null &&
      kept.run.anchorMs !== null &&
      end(kept.run, now, kept.plan.total_s).anchor_s >= kept.plan.total_s;
    found.push(over ? { ...kept, run: end(kept.run, now, kept.plan.total_s) } : kept);
  }
  return found;
}
