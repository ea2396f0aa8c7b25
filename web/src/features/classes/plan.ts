/** What is asked of a class, changed: plain functions from one to the next. */

import type { Schemas } from "../../api/client";
import { whole } from "../../domain/figures";
import { clock } from "../../domain/time";

export type Asked = Schemas["ClassAskedIn"];
export type Answer = Schemas["ClassAnswer"];
export type Kept = Schemas["ClassOut"];
export type Comer = Schemas["ComerIn"];
export type Share = Schemas["ClassShare"];

export interface State {
  asked: Asked;
  rows: string[][];
}

/** What somebody is at: "bag", "pads", "squats", "wait", "away". */
export function kindOf(station: string): string {
  const [first = ""] = station.split(" ");
  return first === "bag" || first === "pads" ? first : station;
}

/** Is it off the bag: the floor, or a station of a circuit? */
export const isOff = (kind: string): boolean => !["bag", "pads", "coach", "wait", "away"].includes(kind);

export const put = (asked: Asked, uid: string, wave: number, at: string): Asked => ({
  ...asked,
  put: [...(asked.put ?? []).filter((each) => each.uid !== uid || each.wave !== wave), { uid, wave, at }],
});

export const letGo = (asked: Asked, uid: string, wave?: number): Asked => ({
  ...asked,
  put: (asked.put ?? []).filter((each) => each.uid !== uid || (wave !== undefined && each.wave !== wave)),
});

/** Two change places in a wave. */
export function swapped(asked: Asked, rows: string[][], one: number, other: number, wave: number): Asked {
  const at = (place: number) => rows[place]?.[wave - 1] ?? "";
  const [first, second] = [asked.people[one], asked.people[other]];
  if (!first || !second) return asked;
  return put(put(asked, first.uid, wave, at(other)), second.uid, wave, at(one));
}

export const withComer = (asked: Asked, uid: string, change: Partial<Comer>): Asked => ({
  ...asked,
  people: asked.people.map((each) => (each.uid === uid ? { ...each, ...change } : each)),
  // Whoever is not there is put nowhere.
  put: (asked.put ?? []).filter((each) => each.uid !== uid || isThere({ ...change }, each.wave)),
});

function isThere({ from_wave, absent_after }: Partial<Comer>, wave: number): boolean {
  return wave >= (from_wave ?? 1) && (absent_after == null || wave <= absent_after);
}

export const without = (asked: Asked, uid: string): Asked => ({
  ...asked,
  people: asked.people.filter((each) => each.uid !== uid),
  together: (asked.together ?? []).filter((pair) => pair.one !== uid && pair.other !== uid),
  put: (asked.put ?? []).filter((each) => each.uid !== uid),
});

/** Two who stay together from here on; nobody has two partners. */
export const paired = (asked: Asked, one: string, other: string): Asked => ({
  ...apart(apart(asked, one), other),
  together: [...(apart(apart(asked, one), other).together ?? []), { one, other }],
});

export const apart = (asked: Asked, uid: string): Asked => ({
  ...asked,
  together: (asked.together ?? []).filter((pair) => pair.one !== uid && pair.other !== uid),
});

export function partnerOf(asked: Asked, uid: string): string | undefined {
  const pair = (asked.together ?? []).find((each) => each.one === uid || each.other === uid);
  return pair && (pair.one === uid ? pair.other : pair.one);
}

/** So many people: guests are added at the end, and taken from there before those with a name. */
export function ofSize(asked: Asked, count: number): Asked {
  let found = asked;
  const guests = () => found.people.filter((each) => each.person_id == null);
  while (found.people.length > Math.max(1, count)) {
    const last = guests().at(-1) ?? found.people.at(-1);
    if (!last) break;
    found = without(found, last.uid);
  }
  while (found.people.length < count) found = { ...found, people: [...found.people, guest(found)] };
  return found;
}

export function guest(asked: Asked, name?: string): Comer {
  let number = asked.people.length + 1;
  const taken = new Set(asked.people.map((each) => each.uid));
  while (taken.has(`guest-${number}`)) number++;
  return { uid: `guest-${number}`, name: name || `Guest ${number}`, easy: false };
}

/** The order of the people drawn anew, so that others are beside each other; the same for the same number. */
export function shuffled(asked: Asked, seed: number): Asked {
  const people = [...asked.people];
  let state = seed * 2654435761 + 1;
  for (let last = people.length - 1; last > 0; last--) {
    state = (state * 1103515245 + 12345) & 0x7fffffff;
    const at = state % (last + 1);
    const [one, other] = [people[last], people[at]];
    if (one && other) [people[last], people[at]] = [other, one];
  }
  return { ...asked, people, put: [] };
}

/** Every place that somebody can be put at in this class. */
export function stationsOf(answer: Answer): string[] {
  const found = new Set(answer.rows.flat().filter((station) => station !== "away" && station !== "wait"));
  const order = (station: string) => ["bag", "coach", "pads"].indexOf(kindOf(station));
  const number = (station: string) => Number(/\d+/.exec(station)?.[0] ?? 0);
  const rank = (station: string) => (order(station) < 0 ? 9 : order(station));
  return [...found].toSorted(
    (one, two) => rank(one) - rank(two) || number(one) - number(two) || one.localeCompare(two),
  );
}

/** Times from the least to the most. */
export function spread(seconds: number[]): string {
  const [low, high] = [Math.min(...seconds), Math.max(...seconds)];
  return low === high ? clock(low) : `${clock(low)} to ${clock(high)}`;
}

/** Numbers from the least to the most. */
export function between(values: number[]): string {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return Math.round(low) === Math.round(high) ? whole(low) : `${whole(low)} to ${whole(high)}`;
}
