/** What the devices have told in a run, kept on this device until the run is logged. */

import { shelf } from "../device/shelf";
import type { Fresh } from "../devices/watch";
import { forget, shelves, type Told } from "./store";

export async function keepTold(told: Told): Promise<void> {
  await (await shelves()).add("told", told);
}

const LAST = shelf<Told[]>("told", 1, (value) => (Array.isArray(value) ? (value as Told[]) : null));

/** What was told just before the page goes away: a database has no time left to take it. */
export function keepLastTold(told: Told): void {
  LAST.set([...(LAST.get(told.runId) ?? []), told], told.runId);
}

/** All that was told of each of so many people, in order. */
export async function toldOf(runId: string, of: number): Promise<Fresh[]> {
  const last = LAST.get(runId) ?? [];
  LAST.remove(runId);
  for (const told of last) await keepTold(told);
  const kept = await (await shelves()).getAllFromIndex("told", "runId", runId);
  return Array.from({ length: of }, (_, place) => {
    const own = kept.filter((one) => one.place === place);
    return { heart: own.flatMap((one) => one.heart), strikes: own.flatMap((one) => one.strikes) };
  });
}

export function forgetTold(runId: string): Promise<void> {
  LAST.remove(runId);
  return forget("told", runId);
}
