/** A run as plain values: where the clock stands, what was played. It knows nothing of the view or the network. */

export interface Run {
  runId: string;
  startedAt: string | null;
  /** Session time at the anchor [s]; negative in the count-in. */
  anchor_s: number;
  /** When the anchor was set [epoch ms]; null while the clock is held. */
  anchorMs: number | null;
  /** Stretches of session time that were played, in the order they were played. */
  spans: [number, number][];
  endedAtMs: number | null;
}

/** Now in epoch ms, on a clock that a change of the device's time does not move while the page is open. */
export const nowMs = (): number => performance.timeOrigin + performance.now();

export const newRun = (runId: string, countIn_s: number): Run => ({
  runId,
  startedAt: null,
  anchor_s: -countIn_s,
  anchorMs: null,
  spans: [],
  endedAtMs: null,
});

export function position(run: Run, now: number): number {
  return run.anchorMs === null ? run.anchor_s : run.anchor_s + (now - run.anchorMs) / 1000;
}

export const isRunning = (run: Run): boolean => run.anchorMs !== null;

/** The stretch played since the anchor is closed; the clock stands at `to` (or where it is), running, held or ended. */
function anchored(run: Run, now: number, total_s: number, to: number | null, running: boolean): Run {
  const here = Math.min(position(run, now), total_s);
  const spans =
    run.anchorMs !== null && here > run.anchor_s ? [...run.spans, [run.anchor_s, here] as [number, number]] : run.spans;
  const anchor_s = to ?? here;
  const over = anchor_s >= total_s;
  return { ...run, spans, anchor_s, anchorMs: running && !over ? now : null, endedAtMs: over ? now : null };
}

export function resume(run: Run, now: number, total_s: number): Run {
  if (isRunning(run) || run.endedAtMs !== null) return run;
  return { ...anchored(run, now, total_s, null, true), startedAt: run.startedAt ?? new Date(now).toISOString() };
}

export function pause(run: Run, now: number, total_s: number): Run {
  return isRunning(run) ? anchored(run, now, total_s, null, false) : run;
}

export function jump(run: Run, now: number, total_s: number, to: number): Run {
  return anchored(run, now, total_s, Math.max(0, Math.min(total_s, to)), isRunning(run));
}

export function end(run: Run, now: number, total_s: number): Run {
  return run.endedAtMs === null ? { ...anchored(run, now, total_s, null, false), endedAtMs: now } : run;
}

/** Seconds of session time played, the count-in left out; a stretch played twice counts twice. */
export function played_s(run: Run): number {
  return Math.round(run.spans.reduce((sum, [from, to]) => sum + Math.max(0, to - Math.max(0, from)), 0));
}

const MOSTLY = 0.9;

/** Efforts of which nine tenths or more were played. */
export function effortsDone(run: Run, efforts: readonly { start_s: number; end_s: number }[]): number {
  return efforts.filter(({ start_s, end_s }) => covered(run.spans, start_s, end_s) >= MOSTLY * (end_s - start_s))
    .length;
}

function covered(spans: readonly [number, number][], start: number, finish: number): number {
  const inside = spans
    .map(([from, to]) => [Math.max(from, start), Math.min(to, finish)] as const)
    .filter(([from, to]) => to > from)
    .sort((a, b) => a[0] - b[0]);
  let reached = start;
  let total = 0;
  for (const [from, to] of inside) {
    const begin = Math.max(from, reached);
    if (to > begin) {
      total += to - begin;
      reached = to;
    }
  }
  return total;
}
