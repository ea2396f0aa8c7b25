import { asText, type Draft } from "./draft";
import { begin, type History } from "./history";

const PREFIX = "yoisho.undo.2.";
const MOST_KEPT = 60;
const MOST_CHARACTERS = 1_500_000;

const keyOf = (sessionId: number | null): string => `${PREFIX}${sessionId ?? "new"}`;

/** Keeps undo and redo on this device, so that a reload takes none of them. */
export function keepHistory(sessionId: number | null, history: History<Draft>): void {
  const kept = { ...history, past: history.past.slice(-MOST_KEPT), future: history.future.slice(0, MOST_KEPT) };
  const text = JSON.stringify(kept);
  try {
    if (text.length <= MOST_CHARACTERS) localStorage.setItem(keyOf(sessionId), text);
    else localStorage.removeItem(keyOf(sessionId));
  } catch {
    // A full or forbidden store costs only the undo of before the reload.
  }
}

/** The history that ends in this draft; a new one where what is kept ends in another. */
export function recallHistory(sessionId: number | null, now: Draft): History<Draft> {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(sessionId)) ?? "null") as History<Draft> | null;
    if (kept && Array.isArray(kept.past) && Array.isArray(kept.future) && asText(kept.now) === asText(now)) {
      return { ...kept, now };
    }
  } catch {
    // What is broken is not read.
  }
  return begin(now);
}
