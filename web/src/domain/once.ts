/** One act, one key: what creates or saves is done once, though its answer is lost and it is asked for again. */

import { shelf } from "./device/shelf";

interface Open {
  act: string;
  key: string;
}

const MOST_OPEN = 8;
const open = shelf<Open[]>("once", 1, (value) => (Array.isArray(value) ? (value as Open[]) : null));

/** A short name for a long text: two of 32 bits, as the server compares the whole anyway. */
function nameOf(text: string): string {
  let [high, low] = [0x9e3779b9, 0x85ebca6b];
  for (let index = 0; index < text.length; index++) {
    const code = text.charCodeAt(index);
    high = Math.imul(high ^ code, 0x01000193);
    low = Math.imul(low ^ code, 0x5bd1e995);
  }
  return `${text.length} ${(high >>> 0).toString(36)} ${(low >>> 0).toString(36)}`;
}

type Headers = Record<"Idempotency-Key", string>;

/** The header of an act, the same until it is done, also after a reload. */
function headersOf(name: string): Headers {
  const known = open.get() ?? [];
  const found = known.find((each) => each.act === name);
  if (found) return { "Idempotency-Key": found.key };
  const fresh = { act: name, key: crypto.randomUUID() };
  open.set([fresh, ...known].slice(0, MOST_OPEN));
  return { "Idempotency-Key": fresh.key };
}

/** Sends an act under its key. Once it was answered the same again is another act. */
export async function once<Answer>(act: unknown, send: (headers: Headers) => Promise<Answer>): Promise<Answer> {
  const name = nameOf(JSON.stringify(act));
  const answer = await send(headersOf(name));
  open.set((open.get() ?? []).filter((each) => each.act !== name));
  return answer;
}
