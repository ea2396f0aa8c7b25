import { shelf } from "../device/shelf";
import { asText, type Draft } from "./draft";
import { begin, type History } from "./history";

const MOST_KEPT = 60;
const MOST_CHARACTERS = 1_500_000;

const histories = shelf<History<Draft>>("undo", 3, (value) => {
  const kept = value as History<Draft> | null;
  return kept && Array.isArray(kept.past) && Array.isArray(kept.future) ? kept : null;
});
const idOf = (sessionId: number | null): number | string => sessionId ?? "new";

/** Keeps undo and redo on this device, so that a reload takes none of them. A full store costs only the undo. */
export function keepHistory(sessionId: number | null, history: History<Draft>): void {
  const kept = { ...history, past: history.past.slice(-MOST_KEPT), future: history.future.slice(0, MOST_KEPT) };
  if (JSON.stringify(kept).length > MOST_CHARACTERS || !histories.set(kept, idOf(sessionId))) {
    histories.remove(idOf(sessionId));
  }
}

/** The history that ends in this draft; a new one where what is kept ends in another. */
export function recallHistory(sessionId: number | null, now: Draft): History<Draft> {
  const kept = histories.get(idOf(sessionId));
  return kept && asText(kept.now) === asText(now) ? { ...kept, now } : begin(now);
}
