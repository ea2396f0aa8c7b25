/** Where a heart rate stands against its band, in one word. */

import type { Schemas } from "../../api/client";

type Target = Schemas["HeartTarget"];

type BandWord = Schemas["Shown"]["word"];

/** The band of a moment; null where there is none. */
export const targetAt = (targets: readonly Target[], at_s: number): Target | null =>
  targets.find((target) => target.start_s <= at_s && at_s < target.end_s) ?? null;

/** Of somebody who waits for their turn: the band that comes next, or the last one there was. */
export const targetAhead = (targets: readonly Target[], at_s: number): Target | null =>
  targets.find((target) => target.end_s > at_s) ?? targets.at(-1) ?? null;

/** Whoever does not work may well be under the band: that is easy. Without a band there is no word. */
export function bandWord(bpm: number | null, lost: boolean, target: Target | null, works: boolean): BandWord {
  if (lost) return "lost";
  if (bpm === null || !target) return "";
  if (bpm > target.high_bpm) return "over";
  if (bpm >= target.low_bpm) return "in band";
  return works ? "under" : "easy";
}
