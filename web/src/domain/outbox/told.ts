/** What the devices have told in a run, kept on this device until the run is logged. */

import type { Fresh } from "../devices/watch";
import { forget, shelves, type Told } from "./store";

export async function keepTold(told: Told): Promise<void> {
  await (await shelves()).add("told", told);
}

/** All that was told of each of so many people, in order. */
export async function toldOf(runId: string, of: number): Promise<Fresh[]> {
  const kept = await (await shelves()).getAllFromIndex("told", "runId", runId);
  return Array.from({ length: of }, (_, place) => {
    const own = kept.filter((one) => one.place === place);
    return { heart: own.flatMap((one) => one.heart), strikes: own.flatMap((one) => one.strikes) };
  });
}

export const forgetTold = (runId: string): Promise<void> => forget("told", runId);
