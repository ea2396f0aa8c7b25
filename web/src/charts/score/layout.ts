/** Where things stand on the time axis: parts are folds, the unfolded ones are wide, the rest share by minutes. */

export interface Fold {
  x: number;
  width: number;
  start_s: number;
  total_s: number;
}

const OPEN_SHARE = 0.5;
const LEAST_WIDTH = 26;
export const GAP = 8;

type Lengths = { start_s: number; total_s: number }[];

/** The unfolded parts share half the width or more by their minutes; with all or none unfolded time is true throughout. */
export function folds(parts: Lengths, unfolded: ReadonlySet<number>, width: number): Fold[] {
  const room = Math.max(0, width - GAP * Math.max(0, parts.length - 1));
  const whole = parts.reduce((sum, part) => sum + part.total_s, 0);
  const wide = parts.reduce((sum, part, index) => sum + (unfolded.has(index) ? part.total_s : 0), 0);
  const closed = whole - wide;
  const wideShare = wide && closed ? Math.max(OPEN_SHARE, wide / whole) : wide ? 1 : 0;
  const raw = parts.map((part, index) => {
    if (unfolded.has(index) && wide) return (room * wideShare * part.total_s) / wide;
    const share = closed ? part.total_s / closed : 1 / parts.length;
    return Math.max(LEAST_WIDTH, room * (1 - wideShare) * share);
  });
  const scale = room / (raw.reduce((sum, each) => sum + each, 0) || 1);
  let x = 0;
  return parts.map((part, index) => {
    const fold = { x, width: (raw[index] ?? 0) * scale, start_s: part.start_s, total_s: part.total_s };
    x += fold.width + GAP;
    return fold;
  });
}

export function xOf(all: Fold[], at_s: number, part?: number): number {
  const fold =
    part === undefined ? (all.findLast((each) => at_s >= each.start_s) ?? all[0]) : (all[part] ?? all[all.length - 1]);
  if (!fold) return 0;
  const inside = Math.min(1, Math.max(0, (at_s - fold.start_s) / (fold.total_s || 1)));
  return fold.x + inside * fold.width;
}

export function timeAt(all: Fold[], x: number): number {
  const fold = all.findLast((each) => x >= each.x - GAP / 2) ?? all[0];
  if (!fold) return 0;
  const inside = Math.min(1, Math.max(0, (x - fold.x) / (fold.width || 1)));
  return fold.start_s + inside * fold.total_s;
}
