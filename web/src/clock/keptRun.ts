/** Runs kept on this device with the plan they follow, so that a reload or a lost network loses nothing. */

import type { Schemas } from "../api/client";
import { end, newRun, type Run } from "./run";

export interface KeptRun {
  plan: Schemas["RunPlan"];
  run: Run;
}

const PREFIX = "yoisho.run.";

export function keepRun(kept: KeptRun): void {
  localStorage.setItem(PREFIX + kept.plan.session_id, JSON.stringify(kept));
}

export function recallRun(sessionId: number): KeptRun | null {
  try {
    const kept = JSON.parse(localStorage.getItem(PREFIX + sessionId) ?? "null") as KeptRun | null;
    if (!kept?.run?.runId || !kept.plan?.timeline) return null;
    return { plan: kept.plan, run: { ...newRun(kept.run.runId, kept.plan.count_in_s), ...kept.run } };
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
