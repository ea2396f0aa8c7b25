import { api, need, type Schemas } from "../../api/client";
import { lastedBefore_s, position, type Run } from "../../domain/clock/run";
import { nowMs } from "../../domain/clock/steady";
import { pieceAt } from "../../domain/clock/view";
import { planOf } from "../../domain/outbox/journal";

type State = Schemas["ClockState"];
/** What other screens show beside the clock. */
export type Beside = Pick<State, "pulse" | "people">;

/** Runs that the server knows of, so that it can be said where their clocks stand. */
const begun = new Map<string, Promise<unknown>>();

function begin(plan: Schemas["RunPlan"], runId: string): Promise<unknown> {
  const known = begun.get(runId);
  if (known) return known;
  const asked = need(api.PUT("/api/runs/{run_id}", { params: { path: { run_id: runId } }, body: planOf(plan) }));
  begun.set(runId, asked);
  asked.catch(() => begun.delete(runId));
  return asked;
}

/** Say where the clock stands, for other screens. Where nobody hears it nothing is lost: the clock is here. */
export async function share(plan: Schemas["RunPlan"], run: Run, beside: Beside): Promise<void> {
  const now = nowMs();
  const piece = pieceAt(plan.timeline, position(run, now));
  const state: State = {
    anchor_s: run.anchor_s,
    anchor_ms: run.anchorMs,
    sent_ms: now,
    lasted_s: piece?.open_ended ? lastedBefore_s(run, now, piece) : 0,
    waits: run.waitsSinceMs !== null,
    reps: Object.fromEntries(Object.entries(run.reps)),
    started: run.startedAt !== null,
    ended: run.endedAtMs !== null,
    shift: run.shift,
    board: plan.board?.revision ?? 0,
    ...beside,
  };
  const { runId } = run;
  try {
    await begin(plan, runId);
    await api.POST("/api/runs/{run_id}/live", { params: { path: { run_id: runId } }, body: { state } });
  } catch {
    // The next word says it all again.
  }
}
