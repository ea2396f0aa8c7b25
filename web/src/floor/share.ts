import { api, type Schemas } from "../api/client";
import type { Run } from "../clock/run";
import { nowMs } from "../clock/steady";

type State = Schemas["ClockState"];
/** What other screens show beside the clock. */
export type Beside = Pick<State, "pulse" | "people">;

/** Say where the clock stands, for other screens. Where nobody hears it nothing is lost: the clock is here. */
export function share(sessionId: number, run: Run, beside: Beside): void {
  const state: State = {
    anchor_s: run.anchor_s,
    anchor_ms: run.anchorMs,
    sent_ms: nowMs(),
    waits: run.waitsSinceMs !== null,
    reps: Object.fromEntries(Object.entries(run.reps)),
    started: run.startedAt !== null,
    ended: run.endedAtMs !== null,
    shift: run.shift,
    ...beside,
  };
  const params = { path: { run_id: run.runId } };
  void api.POST("/api/runs/{run_id}/live", { params, body: { session_id: sessionId, state } }).catch(() => {});
}
