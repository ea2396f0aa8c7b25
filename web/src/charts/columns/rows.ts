import type { Schemas } from "../../api/client";
import shared from "../../api/shared.json";
import { clockRange, type Figures, percentRange, range } from "../../domain/figures";
import { clock } from "../../domain/time";

export interface Compared {
  figures: Figures;
  total_s: number;
  work_s: number;
}

export interface Row {
  name: string;
  figure: (of: Compared) => Schemas["Figure"] | undefined;
  show: (figure: Schemas["Figure"]) => string;
  /** A difference in words, without its sign. */
  by: (difference: number) => string;
}

const exact = (value: number): Schemas["Figure"] => ({ value, low: value, high: value });
const whole = (difference: number) => String(Math.round(difference));
const minutes = (difference: number) => clock(60 * difference);
const percent = (difference: number) => `${Math.round(100 * difference)} points`;

/** What is compared, from the first the eye looks for to the last. */
export const ROWS: Row[] = [
  {
    name: `Lactic store ${shared.lactic_deep}`,
    figure: ({ figures }) => figures.lactic_deep_min,
    show: clockRange,
    by: minutes,
  },
  {
    name: "Sprint store as efforts start",
    figure: ({ figures }) => figures.sprint_at_start,
    show: percentRange,
    by: percent,
  },
  { name: "Above 90 % of VO₂peak", figure: ({ figures }) => figures.vo2_90_min, show: clockRange, by: minutes },
  {
    name: "Peak lactate, mmol/L",
    figure: ({ figures }) => figures.lactate_peak_mmol,
    show: (figure) => range(figure, 0),
    by: whole,
  },
  { name: "Fade of the last effort", figure: ({ figures }) => figures.fade_last, show: percentRange, by: percent },
  { name: "Strikes", figure: ({ figures }) => figures.strikes, show: (figure) => range(figure, -1), by: whole },
  { name: "Load, RPE × minutes", figure: ({ figures }) => figures.load, show: (figure) => range(figure, 0), by: whole },
  { name: "Work", figure: (of) => exact(of.work_s), show: (figure) => clock(figure.value), by: clock },
  { name: "Time", figure: (of) => exact(of.total_s), show: (figure) => clock(figure.value), by: clock },
];
