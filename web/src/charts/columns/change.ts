import type { Schemas } from "../../api/client";

type Figure = Schemas["Figure"];

export interface Change {
  /** Up, down, or too small to tell from error. */
  way: "up" | "down" | "none";
  by: number;
}

/** How far a figure is from what it was; none where each lies within the other's range. */
export function change(was: Figure, is: Figure): Change {
  const by = is.value - was.value;
  const within = (figure: Figure, value: number) => value >= figure.low && value <= figure.high;
  const same = by === 0 || (within(was, is.value) && within(is, was.value));
  return { way: same ? "none" : by > 0 ? "up" : "down", by };
}
