/** The pulse of a run: every beat to strike to, for the ear and for the eye. */

import type { Cue } from "./cuePlayer";

export const FACTORS = [0, 1, 2, 0.5] as const;
/** Off, as it is, double time, half time. */
export type Factor = (typeof FACTORS)[number];

interface Beating {
  start_s: number;
  seconds: number;
  pulse_per_min: number;
  reps?: number | null;
}

const QUICKEST = 400;

const every_s = (piece: Beating, factor: number): number => {
  const rate = piece.reps ? 0 : Math.min(QUICKEST, piece.pulse_per_min * factor);
  return rate > 0 ? 60 / rate : 0;
};

/** Every beat of the run in order; the first of each interval is left to the bell. */
export function pulses(pieces: readonly Beating[], factor: Factor): Cue[] {
  return pieces.flatMap((piece) => {
    const step = every_s(piece, factor);
    if (!step) return [];
    const count = Math.ceil(piece.seconds / step - 1e-9) - 1;
    return Array.from({ length: Math.max(0, count) }, (_, beat) => ({
      at_s: piece.start_s + (beat + 1) * step,
      kind: "pulse" as const,
    }));
  });
}

/** The pulse for the eye: the one that is asked for; to music its own beat, asked for or not. */
export function shownPulse(piece: (Beating & { music_per_min?: number | null }) | null, asked: Factor): number {
  if (asked || !piece?.music_per_min || !piece.pulse_per_min) return asked;
  return piece.music_per_min / piece.pulse_per_min;
}

/** Which beat of its interval it is at a moment, from 0; null where nothing beats. */
export function beatAt(piece: Beating | null, at_s: number, factor: number): number | null {
  const step = piece ? every_s(piece, factor) : 0;
  return piece && step ? Math.floor((at_s - piece.start_s) / step + 1e-6) : null;
}
