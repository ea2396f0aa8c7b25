import type { Schemas } from "../../api/client";
import { newRun, type Run } from "../../domain/clock/run";

/** The clock of a run, as its device said it. */
export interface Said {
  run_id: string;
  /** How long ago it was said, by the server. */
  age_ms: number;
  state: Schemas["ClockState"];
}

/** The run on the clock of this screen: whatever the two devices' clocks show, it was sent `age_ms` before `now`. */
export function onThisClock(said: Said, now: number, countIn_s: number): Run {
  const { state } = said;
  const offset = now - said.age_ms - state.sent_ms;
  return {
    ...newRun(said.run_id, countIn_s),
    startedAt: state.started ? new Date(now).toISOString() : null,
    anchor_s: state.anchor_s,
    anchorMs: state.anchor_ms === null ? null : state.anchor_ms + offset,
    waitsSinceMs: state.waits ? now : null,
    // What it has lasted before the anchor, wherever that was spent.
    stood: state.lasted_s ? [[state.anchor_s, state.lasted_s]] : [],
    reps: state.reps as unknown as Run["reps"],
    endedAtMs: state.ended ? now : null,
    shift: state.shift,
  };
}
