import { api } from "../api/client";
import { nowMs, type Run } from "../clock/run";

/** Say where the clock stands, for other screens. Where nobody hears it nothing is lost: the clock is here. */
export function share(sessionId: number, run: Run): void {
  const state = {
    anchor_s: run.anchor_s,
    anchor_ms: run.anchorMs,
    sent_ms: nowMs(),
    waits: run.waitsSinceMs !== null,
    reps: Object.fromEntries(Object.entries(run.reps)),
    started: run.startedAt !== null,
    ended: run.endedAtMs !== null,
  };
  const params = { path: { run_id: run.runId } };
  void api.POST("/api/runs/{run_id}/live", { params, body: { session_id: sessionId, state } }).catch(() => {});
}
