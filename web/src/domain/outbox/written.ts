/** What a coach writes into the log of a run, kept on this device until it is saved. */

import type { Schemas } from "../../api/client";
import { shelf } from "../device/shelf";

export type Pain = Schemas["PainIn"];

export interface Written {
  rpe: number | null;
  /** Null as long as it is what the clock counted. */
  efforts: number | null;
  /** Empty where it is what the sensor counted, or nobody did. */
  strikes: string;
  note: string;
  pain: Pain[];
  /** Of a class: planned to come, and not there after all. */
  absent?: boolean;
}

/** People of a class at the most, and the note on it. */
const PLACES = 61;
const BLANK: Written = { rpe: null, efforts: null, strikes: "", note: "", pain: [] };
const written = shelf<Partial<Written>>("log", 1, (value) =>
  typeof value === "object" ? (value as Partial<Written> | null) : null,
);
const idOf = (runId: string, place: number): string => `${runId}.${place}`;

export const recallWritten = (runId: string, place: number): Written => ({
  ...BLANK,
  ...written.get(idOf(runId, place)),
});

export function keepWritten(runId: string, place: number, value: Written): void {
  written.set(value, idOf(runId, place));
}

/** Of everybody in the run. */
export function forgetWritten(runId: string): void {
  for (let place = 0; place < PLACES; place++) written.remove(idOf(runId, place));
}

const MOST_STRIKES = 20_000;

/** The count that was typed; null where there is none or it is no number. */
export function readStrikes(text: string): number | null {
  return /^\d{1,5}$/.test(text.trim()) && Number(text) <= MOST_STRIKES ? Number(text) : null;
}

/** A flag put on or taken off: the same place and side. */
export function flagged(pain: Pain[], where: Pain["where"], side: Pain["side"]): Pain[] {
  const same = (one: Pain) => one.where === where && (one.side ?? null) === (side ?? null);
  return pain.some(same) ? pain.filter((one) => !same(one)) : [...pain, { where, side: side ?? null }];
}
