/** Who is where while a class runs: the board of a wave, and the wave a moment belongs to. */

import type { Schemas } from "../../api/client";

export type Board = Schemas["RunBoard"];
export type BoardIn = Schemas["BoardIn"];

export interface Line {
  station: string;
  now: string;
  next: string;
}

/** The wave that is on, or 0 before the first; in a change it is the one before. */
export function waveAt(board: Board, at: number): number {
  return board.waves.findLast((wave) => wave.start_s <= at)?.number ?? 0;
}

/** Is a wave on at this moment, and not a change or what is around the waves? */
export function inWave(board: Board, at: number): boolean {
  return board.waves.some((wave) => wave.start_s <= at && at < wave.end_s);
}

/** The first wave that can still be changed: the one that comes next. */
export const nextWave = (board: Board, at: number): number => waveAt(board, at) + 1;

/** Once the two at the pads have swapped, in the wave that is on, whoever held hits. */
export function swappedAt(board: Board, at: number): boolean {
  const wave = board.waves.find((each) => each.start_s <= at && at < each.end_s);
  return wave !== undefined && at >= wave.swap_s;
}

const ORDER = ["bag", "coach", "pads"];

function rank(station: string): [number, number, string] {
  const [first = ""] = station.split(" ");
  const known = ORDER.indexOf(first);
  const place = known >= 0 ? known : station === "wait" ? 9 : 5;
  return [place, Number(/\d+/.exec(station)?.[0] ?? 0), station];
}

function sorted(one: string, two: string): number {
  const [a, b] = [rank(one), rank(two)];
  return a[0] - b[0] || a[1] - b[1] || a[2].localeCompare(b[2]);
}

/** A line for every place that is taken in a wave or in the next: who is there now, who comes. */
export function linesOf(board: Board, wave: number): Line[] {
  const at = (number: number) => {
    const found = new Map<string, string[]>();
    for (const { name, row } of board.people) {
      const station = row[number - 1];
      if (station && station !== "away") found.set(station, [...(found.get(station) ?? []), name]);
    }
    return found;
  };
  const [now, next] = [at(wave), at(wave + 1)];
  const stations = [...new Set([...now.keys(), ...next.keys()])].toSorted(sorted);
  return stations.flatMap((station) => {
    const [here, coming] = [now.get(station) ?? [], next.get(station) ?? []];
    return Array.from({ length: Math.max(here.length, coming.length) }, (_, number) => ({
      station,
      now: here[number] ?? "",
      next: coming[number] ?? "",
    }));
  });
}

/** The board as it is told to the server. */
export const boardIn = (board: Board): BoardIn => ({
  part: board.part,
  doing: board.doing,
  people: board.people.map(({ name, person_id, row, easy, holds }) => ({ name, person_id, row, easy, holds })),
});

/** The board of a run with the rows that were told; what was worked out of its waves stays. */
export const withRows = (board: Board, told: BoardIn): Board => ({
  ...board,
  people: told.people.map((each, place) => ({
    name: each.name,
    person_id: each.person_id ?? null,
    label: board.people[place]?.label ?? "",
    row: each.row,
    easy: each.easy,
    holds: each.holds,
  })),
});

/** Somebody late where there is no network: off the bag for what is left, since nothing can be solved. */
export function lateWithoutNetwork(board: Board, name: string, personId: number | null, wave: number): BoardIn {
  const stations = board.people.flatMap(({ row }) => row);
  const off = stations.find((each) => !["bag", "pads", "coach", "wait", "away"].includes(each.split(" ")[0] ?? ""));
  const row = board.waves.map(({ number }) => (number < wave ? "away" : (off ?? "floor")));
  const told = boardIn(board);
  return { ...told, people: [...told.people, { name, person_id: personId, row, easy: false, holds: true }] };
}

/** What people are called across a hall: first names, with what tells two of the same apart. */
export function calledNames(names: readonly string[]): Map<string, string> {
  const first = (name: string) => name.split(" ")[0] ?? name;
  const found = new Map<string, string>();
  for (const name of names) {
    const same = names.filter((other) => first(other) === first(name));
    const [, ...rest] = name.split(" ");
    const last = rest.at(-1) ?? "";
    const short =
      same.length === 1 ? first(name) : `${first(name)} ${/^\d|\(/.test(last) ? last : last.slice(0, 1)}`.trim();
    found.set(name, short);
  }
  const told = [...found.values()];
  // Where even that does not tell them apart, they stand with their whole names.
  for (const [name, short] of found) if (told.filter((each) => each === short).length > 1) found.set(name, name);
  return found;
}

/** A station as it stands on the board: the role of two at the pads as it is just then. */
export function shownAt(station: string, swapped: boolean): string {
  if (!swapped) return station;
  if (station.endsWith(" hit")) return station.replace(/hit$/, "hold");
  if (station.endsWith(" hold")) return station.replace(/hold$/, "hit");
  return station;
}
