import type { Schemas } from "../api/client";
import { clock } from "./time";

export type FigureValue = Schemas["Figure"] | undefined;
/** Figures by their ids; some are not told of everybody. */
export type Figures = Partial<Record<Schemas["FigureId"], Schemas["Figure"]>>;

function round(value: number, digits: number): number {
  const unit = 10 ** -digits;
  return Math.round(value / unit) * unit;
}

/** A whole number as people read it: 1,290. */
export const whole = (value: number): string => Math.round(value).toLocaleString("en");

export function range(figure: FigureValue, digits: number): string {
  if (!figure) return "not known";
  const low = round(figure.low, digits);
  const high = round(figure.high, digits);
  return low === high ? `about ${low}` : `${low} to ${high}`;
}

export function percentRange(figure: FigureValue): string {
  if (!figure) return "not known";
  const [low, high] = [figure.low, figure.high].map((share) => Math.round(100 * Math.max(0, share)));
  return low === high ? `about ${low} %` : `${low} to ${high} %`;
}

/** A share of the draws, as people say it. */
export function inTen(share: number): string {
  const tenths = Math.round(10 * share);
  return tenths === 0
    ? "hardly any like this person"
    : tenths === 10
      ? "nearly all like this person"
      : `${tenths} in 10 like this person`;
}

export function clockRange(figure: FigureValue): string {
  if (!figure) return "not known";
  const low = clock(60 * figure.low);
  const high = clock(60 * figure.high);
  return low === high ? low : `${low} to ${high}`;
}

/** In which effort it fails, with its range; or that it is held to the end, and how surely. */
export function failsIn(fails: Schemas["FadeOnset"], efforts: number, at_s: number | null): string {
  const { bout, earliest, latest, probability } = fails;
  if (bout === null) {
    if (probability < 0.1 || earliest === null) return "Held to the end.";
    return `Held to the end, by the best guess; ${inTen(probability)} fail before, from effort ${earliest} on.`;
  }
  if (efforts === 1) return at_s === null ? "Fails before its end." : `Fails at ${clock(at_s)}.`;
  const range =
    latest === null ? `; ${earliest ?? bout} on, if at all` : earliest === latest ? "" : `; ${earliest} to ${latest}`;
  return `Fails in effort ${bout} of ${efforts}${range}.`;
}

/** The first effort that falls short, with its range; or how likely there is one. Where it fails it never says nowhere. */
export function fadeOnset(onset: Schemas["FadeOnset"], fails?: Schemas["FadeOnset"]): string {
  const { earliest, latest, probability } = onset;
  if (earliest === null && fails && fails.bout !== null) return "not before it fails";
  if (earliest === null) return probability < 0.01 ? "nowhere" : "hardly";
  if (latest === null) return `effort ${earliest} on, if at all`;
  return earliest === latest ? `effort ${earliest}` : `effort ${earliest} to ${latest}`;
}
