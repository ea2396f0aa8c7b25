/** A run as plain values: where the clock stands, what was played. It knows nothing of the view or the network. */

import shared from "../../api/shared.json";

export interface Run {
  runId: string;
  startedAt: string | null;
  /** Session time at the anchor [s]; negative in the count-in. */
  anchor_s: number;
  /** When the anchor was set [epoch ms]; null while the clock is held. */
  anchorMs: number | null;
  /** Stretches of session time that were played, in the order they were played, with the swaps by hand before. */
  spans: Span[];
  endedAtMs: number | null;
  /** Reps counted in intervals that are counted and not timed, by where they start [s]. */
  reps: Record<number, number>;
  /** Intervals that ended when they were done, and not by the clock: done, however long they took. */
  counted: [number, number][];
  /** Since when the clock stands before the end of an interval that is not done yet [epoch ms]. */
  waitsSinceMs: number | null;
  /** Where the clock stood while the session went on, and for how long: time added, reps that took longer. */
  stood: Stood[];
  /** How often partners were swapped by hand. */
  shift: number;
}

export type Span = [from_s: number, to_s: number, shift: number];
export type Stood = [at_s: number, seconds: number];

export const newRun = (runId: string, countIn_s: number): Run => ({
  runId,
  startedAt: null,
  anchor_s: -countIn_s,
  anchorMs: null,
  spans: [],
  endedAtMs: null,
  reps: {},
  counted: [],
  waitsSinceMs: null,
  stood: [],
  shift: 0,
});

export function position(run: Run, now: number): number {
  return run.anchorMs === null ? run.anchor_s : run.anchor_s + Math.max(0, now - run.anchorMs) / 1000;
}

/** Seconds that were added and are not over yet: the clock stands meanwhile. */
export const standing_s = (run: Run, now: number): number =>
  run.anchorMs === null ? 0 : Math.max(0, run.anchorMs - now) / 1000;

/** The clock moves; or it stands only for what is still to be done. */
export const isRunning = (run: Run): boolean => run.anchorMs !== null || run.waitsSinceMs !== null;

/** The stretch played since the anchor is closed; the clock stands at `to` (or where it is), running, held or ended. */
function anchored(before: Run, now: number, total_s: number, to: number | null, running: boolean): Run {
  const run = waited(before, now);
  const here = Math.min(position(run, now), total_s);
  const spans: Span[] =
    run.anchorMs !== null && here > run.anchor_s ? [...run.spans, [run.anchor_s, here, run.shift]] : run.spans;
  const anchor_s = to ?? here;
  const over = anchor_s >= total_s;
  return { ...run, spans, anchor_s, anchorMs: running && !over ? now : null, endedAtMs: over ? now : null };
}

/** More time where the clock is: it stands for so long, and then goes on. */
export function add(run: Run, now: number, total_s: number, seconds: number): Run {
  if (run.anchorMs === null) return run;
  const still_s = standing_s(run, now) + seconds;
  const here = anchored(run, now, total_s, null, true);
  if (here.anchorMs === null) return here;
  return { ...here, anchorMs: now + 1000 * still_s, stood: [...here.stood, [here.anchor_s, still_s]] };
}

/** The last time that was added, shortened by what was not used of it. */
function less(stood: Stood[], seconds: number): Stood[] {
  const last = stood.at(-1);
  return last ? [...stood.slice(0, -1), [last[0], Math.max(0, last[1] - seconds)]] : stood;
}

/** Longer than any interval nobody waits: the page was left [s]. */
const LONGEST_WAIT_S = 7200;

const waiting_s = (run: Run, now: number): number =>
  run.waitsSinceMs === null ? 0 : Math.min(LONGEST_WAIT_S, (now - run.waitsSinceMs) / 1000);

/** Waiting ends, and the time it took is counted; added time that was not used is taken off again. */
function waited(run: Run, now: number): Run {
  const unused_s = standing_s(run, now);
  if (unused_s > 0) return { ...run, anchorMs: now, stood: less(run.stood, unused_s) };
  if (run.waitsSinceMs === null) return run;
  return { ...run, waitsSinceMs: null, stood: [...run.stood, [run.anchor_s, waiting_s(run, now)]] };
}

/** An interval; one that is counted or open-ended is not ended by the clock. */
export interface Ended {
  start_s: number;
  seconds: number;
  reps?: number | null;
  open_ended?: boolean;
}

export const timed = (piece: Ended): boolean => !piece.reps && !piece.open_ended;

const JUST_BEFORE_S = 0.01;

export const repsLeft = (run: Run, piece: Ended): number =>
  Math.max(0, (piece.reps ?? 0) - (run.reps[piece.start_s] ?? 0));

/** Where the clock will not go on by itself: the end of the next interval that is not done yet [s]; else never. */
export function waitsAt_s(run: Run, pieces: readonly Ended[]): number {
  const piece = pieces.find(
    (each) => each.start_s + each.seconds > run.anchor_s && (each.open_ended || repsLeft(run, each) > 0),
  );
  return piece ? piece.start_s + piece.seconds : Number.POSITIVE_INFINITY;
}

/** The clock stands just before the end of an interval until its reps are done, or the coach ends it. */
export function waitForTheEnd(run: Run, now: number, total_s: number, pieces: readonly Ended[]): Run {
  if (run.anchorMs === null) return run;
  const stands_s = waitsAt_s(run, pieces) - JUST_BEFORE_S;
  if (position(run, now) < stands_s) return run;
  // It has stood since then, however late that is seen: a page that is hidden is not drawn.
  const since = run.anchorMs + 1000 * Math.max(0, stands_s - run.anchor_s);
  return { ...anchored(run, since, total_s, stands_s, false), endedAtMs: null, waitsSinceMs: since };
}

/** One rep more; after the last one the clock goes on to what follows. */
export function countRep(run: Run, now: number, total_s: number, piece: Ended): Run {
  if (!isRunning(run) || repsLeft(run, piece) === 0) return run;
  const next = { ...run, reps: { ...run.reps, [piece.start_s]: (run.reps[piece.start_s] ?? 0) + 1 } };
  return repsLeft(next, piece) > 0 ? next : endPiece(next, now, total_s, piece);
}

/** What the clock does not end is done: the session goes on with what follows. */
export function endPiece(run: Run, now: number, total_s: number, piece: Ended): Run {
  const end_s = piece.start_s + piece.seconds;
  const done = { ...run, counted: [...run.counted, [piece.start_s, end_s] as [number, number]] };
  return anchored(done, now, total_s, end_s, isRunning(run));
}

/** Open-ended work that is left sooner was skipped, and not done [s]. */
const BEGUN_S = 10;

/** The coach leaves open-ended work: it is done. Anything else, and what has hardly begun, stays as it is. */
export function endOpenEnded(run: Run, now: number, total_s: number, piece: Ended | null): Run {
  return piece?.open_ended && lasted_s(run, now, piece) >= BEGUN_S ? endPiece(run, now, total_s, piece) : run;
}

/** How long an interval has been on up to the anchor: what was played of it, and what the clock stood in it. */
export function lastedBefore_s(run: Run, now: number, { start_s, seconds }: Ended): number {
  const end_s = start_s + seconds;
  const inside = (at: number) => start_s <= at && at < end_s;
  const played = run.spans.reduce((sum, [from, to]) => sum + overlap_s(from, to, start_s, end_s), 0);
  const stood = run.stood.reduce((sum, [at, time]) => sum + (inside(at) ? time : 0), 0);
  return played + stood + (inside(run.anchor_s) ? waiting_s(run, now) : 0);
}

/** How long an interval has been on. */
export const lasted_s = (run: Run, now: number, piece: Ended): number =>
  lastedBefore_s(run, now, piece) +
  overlap_s(run.anchor_s, position(run, now), piece.start_s, piece.start_s + piece.seconds);

const overlap_s = (from: number, to: number, start: number, finish: number): number =>
  Math.max(0, Math.min(to, finish) - Math.max(from, start));

/** From here on the other one works: whose turn it is moves by one. */
export function swap(run: Run, now: number, total_s: number): Run {
  if (run.endedAtMs !== null) return run;
  const still_s = standing_s(run, now);
  const here = anchored(run, now, total_s, null, run.anchorMs !== null);
  const swapped = { ...here, shift: run.shift + 1, waitsSinceMs: run.waitsSinceMs === null ? null : now };
  return still_s > 0 ? add(swapped, now, total_s, still_s) : swapped;
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
  const stood_s = run.stood.reduce((sum, [, seconds]) => sum + seconds, 0);
  return Math.round(stood_s + run.spans.reduce((sum, [from, to]) => sum + Math.max(0, to - Math.max(0, from)), 0));
}

/** Efforts of which nine tenths or more were played. */
export function effortsDone(run: Run, efforts: readonly { start_s: number; end_s: number }[]): number {
  const done = [...run.spans, ...run.counted];
  return efforts.filter(({ start_s, end_s }) => covered(done, start_s, end_s) >= shared.mostly * (end_s - start_s))
    .length;
}

/** Seconds between two moments of the session that were played so far. */
export function playedBetween_s(run: Run, now: number, from_s: number, to_s: number): number {
  return covered([...run.spans, [run.anchor_s, position(run, now)]], from_s, to_s);
}

export function covered(
  spans: readonly (readonly [from_s: number, to_s: number, ...rest: number[]])[],
  start: number,
  finish: number,
): number {
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
