import { type ScaleBand, scaleBand, scaleLinear } from "d3-scale";
import type { Schemas } from "../../api/client";

export type Week = Schemas["TrendWeek"];

/** Left of the weeks, for what the rows are called. */
export const GUTTER = 128;
/** Under this width of a week nothing is written in it. */
const LEAST_FOR_WORDS = 34;

export interface Frame {
  width: number;
  band: ScaleBand<string>;
  /** Where a moment of the weeks lies. */
  at: (iso: string) => number;
  /** Whether there is room for a number in each week. */
  wide: boolean;
}

const DAY_MS = 86_400_000;
const noon = (iso: string): number => new Date(iso.length === 10 ? `${iso}T12:00:00` : iso).getTime();

/** The one scale that every drawing of the weeks stands on. */
export function frameOf(weeks: readonly Week[], width: number): Frame {
  const band = scaleBand<string>()
    .domain(weeks.map(({ monday }) => monday))
    .range([GUTTER, width])
    .paddingInner(0.12)
    .paddingOuter(0.06);
  const first = noon(weeks[0]?.monday ?? "2000-01-03") - DAY_MS / 2;
  const time = scaleLinear()
    .domain([first, first + weeks.length * 7 * DAY_MS])
    .range([GUTTER, width])
    .clamp(true);
  return { width, band, at: (iso) => time(noon(iso)), wide: band.bandwidth() >= LEAST_FOR_WORDS };
}

/** From 0 to the most there is, on to a height or width. */
export const upTo = (most: number, length: number) =>
  scaleLinear()
    .domain([0, Math.max(most, 1e-9)])
    .range([0, length])
    .clamp(true);
