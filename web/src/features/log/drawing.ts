/** Where things of a run that was done stand on the time axis. */

import type { Schemas } from "../../api/client";
import { type Fold, xOf } from "../../charts/score/layout";
import { works } from "../../domain/clock/crew";

type Piece = Pick<Schemas["TimelineInterval"], "start_s" | "seconds" | "part">;

/** Start and length of each part. */
export function partsOf(timeline: readonly Piece[]): { start_s: number; total_s: number }[] {
  const parts: { start_s: number; total_s: number }[] = [];
  for (const { part, start_s, seconds } of timeline) {
    const known = parts[part] ?? { start_s, total_s: 0 };
    parts[part] = { ...known, total_s: start_s + seconds - known.start_s };
  }
  return parts;
}

export interface TraceLine {
  part: number;
  from_s: number;
  /** The strap was off: drawn dotted from the last reading to the next. */
  gap: boolean;
  points: { x: number; bpm: number }[];
}

/** Beyond this the clock was moved, rather than the strap off. */
const LONGEST_GAP_S = 90;

/** Readings as lines, broken at the parts and where nothing was heard for longer than `apart_s`. */
export function trace(heart: readonly [number, number][], all: Fold[], apart_s: number): TraceLine[] {
  const inOrder = heart.toSorted((a, b) => a[0] - b[0]);
  const lines: TraceLine[] = [];
  let before: { at: number; bpm: number; part: number } | null = null;
  for (const [at, bpm] of inOrder) {
    const part = Math.max(
      0,
      all.findLastIndex((fold) => at >= fold.start_s),
    );
    const point = { x: xOf(all, at, part), bpm };
    const line = lines.at(-1);
    if (before && line && before.part === part && at - before.at <= apart_s) {
      line.points.push(point);
    } else {
      if (before && before.part === part && at - before.at <= LONGEST_GAP_S) {
        const from = { x: xOf(all, before.at, part), bpm: before.bpm };
        lines.push({ part, from_s: before.at, gap: true, points: [from, point] });
      }
      lines.push({ part, from_s: at, gap: false, points: [point] });
    }
    before = { at, bpm, part };
  }
  return lines.filter((line) => line.points.length > 1);
}

/** The timeline as the one at a place had it: what is another's turn is a rest. */
export function livedBy(
  timeline: readonly Schemas["FloorInterval"][],
  place: number,
  of: number,
  shift: number,
): Schemas["FloorInterval"][] {
  return timeline.map((piece) =>
    piece.turn === null || works(piece, place, of, shift)
      ? piece
      : { ...piece, kind: "rest", tempo: "rest", demand_frac: 0, strikes: 0 },
  );
}
