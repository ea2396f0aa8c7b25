import type { Schemas } from "../../api/client";

type Planned = Schemas["PlannedOut"];

/** Minutes since midnight of "18:20" or "18:20:00". */
export function minutesOf(at: string): number {
  const [hours = 0, minutes = 0] = at.split(":").map(Number);
  return 60 * hours + minutes;
}

/** Minutes as an hour of the day, such as 18:20. */
export const hourOf = (minutes: number): string =>
  `${Math.floor(minutes / 60)}:${String(Math.floor(minutes % 60)).padStart(2, "0")}`;

const EARLIEST = 6 * 60;
const LATEST = 22 * 60;

/** From which hour to which the day is drawn [min]: six to ten, and further where something is planned. */
export function spanOf(planned: readonly Planned[]): [number, number] {
  const starts = planned.map(({ at }) => minutesOf(at));
  const ends = planned.map(({ at, total_s }) => minutesOf(at) + total_s / 60);
  const first = Math.floor(Math.min(EARLIEST, ...starts) / 60) * 60;
  const last = Math.ceil(Math.max(LATEST, ...ends) / 60) * 60;
  return [first, last];
}

/** Whose hour is written over the day: none over another's, whoever is first. */
export function written(planned: readonly Planned[], apart: number): Set<number> {
  const found = new Set<number>();
  let before = Number.NEGATIVE_INFINITY;
  for (const { id, at } of planned.toSorted((one, two) => minutesOf(one.at) - minutesOf(two.at))) {
    if (minutesOf(at) - before < apart) continue;
    found.add(id);
    before = minutesOf(at);
  }
  return found;
}

/** The one to run next: what is on now or comes first after now and is not logged. */
export function nextOf(planned: readonly Planned[], now: number): Planned | null {
  const open = planned.filter(({ done, at, total_s }) => !done && minutesOf(at) + total_s / 60 > now);
  return open[0] ?? null;
}

/** How long until then, in words. */
export function untilThen(minutes: number): string {
  if (minutes <= 0) return "now";
  const hours = Math.floor(minutes / 60);
  const rest = Math.round(minutes % 60);
  return `in ${[hours && `${hours} h`, rest && `${rest} min`].filter(Boolean).join(" ")}`;
}
