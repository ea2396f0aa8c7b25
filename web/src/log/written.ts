/** What a coach writes into the log of a run, kept on this device until it is saved. */

import type { Schemas } from "../api/client";

export type Pain = Schemas["PainIn"];

export interface Written {
  rpe: number | null;
  /** Null as long as it is what the clock counted. */
  efforts: number | null;
  /** Empty where it is what the sensor counted, or nobody did. */
  strikes: string;
  note: string;
  pain: Pain[];
}

const BLANK: Written = { rpe: null, efforts: null, strikes: "", note: "", pain: [] };
const keyOf = (runId: string, place: number): string => `yoisho.log.${runId}.${place}`;

export function recallWritten(runId: string, place: number): Written {
  try {
    return { ...BLANK, ...(JSON.parse(localStorage.getItem(keyOf(runId, place)) ?? "null") as Written | null) };
  } catch {
    return BLANK;
  }
}

export function keepWritten(runId: string, place: number, written: Written): void {
  localStorage.setItem(keyOf(runId, place), JSON.stringify(written));
}

export function forgetWritten(runId: string, place: number): void {
  localStorage.removeItem(keyOf(runId, place));
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
