/** What the clock shows at a moment of session time. */

export interface Turn {
  turn: number;
  of: number;
}

export interface Piece {
  start_s: number;
  seconds: number;
  kind: "work" | "recover" | "rest";
  tempo: string;
  rounds: Turn[];
  part: number;
}

export interface View<P extends Piece> {
  phase: "ready" | "work" | "recover" | "rest" | "done";
  index: number;
  piece: P | null;
  next: P | null;
  left_s: number;
  /** Share of the phase that is left, 1 to 0. */
  leftShare: number;
  round: Turn | null;
  set: Turn | null;
}

export function view<P extends Piece>(pieces: readonly P[], at_s: number, countIn_s: number): View<P> {
  const total = pieces.reduce((sum, piece) => sum + piece.seconds, 0);
  const first = pieces[0] ?? null;
  if (at_s < 0 || !first) {
    return {
      phase: "ready",
      index: -1,
      piece: null,
      next: first,
      left_s: -at_s,
      leftShare: -at_s / countIn_s,
      round: null,
      set: null,
    };
  }
  if (at_s >= total) {
    return {
      phase: "done",
      index: pieces.length,
      piece: null,
      next: null,
      left_s: 0,
      leftShare: 0,
      round: null,
      set: null,
    };
  }
  const index = pieces.findLastIndex((piece) => piece.start_s <= at_s);
  const piece = pieces[index] ?? first;
  const left = piece.start_s + piece.seconds - at_s;
  const turns = piece.rounds.filter((turn) => turn.of > 1);
  return {
    phase: piece.kind,
    index,
    piece,
    next: pieces[index + 1] ?? null,
    left_s: left,
    leftShare: left / piece.seconds,
    round: turns[turns.length - 1] ?? null,
    set: turns.length > 1 ? (turns[turns.length - 2] ?? null) : null,
  };
}

/** A clock is drawn at so many steps a second; what is heard keeps a time of its own. More would only warm the device. */
const STEPS_PER_S = 20;
/** Whole seconds are never drawn late for it. */
const EXACT_S = 1e-6;

/** The last step at a moment of session time, which is what is drawn of it [s]. */
export const stepAt = (at_s: number): number => Math.floor((at_s + EXACT_S) * STEPS_PER_S) / STEPS_PER_S;

/** How long it is until the next step [ms]. */
export const untilStep_ms = (at_s: number): number => 1000 * (stepAt(at_s) + 1 / STEPS_PER_S - at_s);

/** The piece at a moment; null before the first bell. */
export function pieceAt<P extends { start_s: number }>(pieces: readonly P[], at_s: number): P | null {
  return pieces.findLast((piece) => piece.start_s <= at_s) ?? null;
}

/** Where a skip goes: the start of the next piece. */
export function skipTo(pieces: readonly Piece[], at_s: number): number {
  const next = pieces.find((piece) => piece.start_s > at_s);
  const last = pieces[pieces.length - 1];
  return next ? next.start_s : last ? last.start_s + last.seconds : 0;
}

/** Where a step back goes: the start of this piece, or of the one before when this one has just begun. */
export function backTo(pieces: readonly Piece[], at_s: number): number {
  const index = pieces.findLastIndex((piece) => piece.start_s <= at_s);
  const here = pieces[index];
  if (!here) return 0;
  return at_s - here.start_s > 2 ? here.start_s : (pieces[index - 1]?.start_s ?? 0);
}
