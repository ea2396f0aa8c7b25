/**
 * Things that must reach the server, however long the network is away or the tab is closed. Each is sent to an address
 * that takes the same thing twice as once, for the coach who made it, and leaves the device only when the server has
 * taken it. What is refused stays, as a letter that came back, until somebody has seen to it; one thing that fails
 * never holds up the next.
 */

import { csrfToken, refusal } from "../../api/client";
import { isOwn, ownerNow } from "../device/owner";
import { type Refusal, shelves, type Waiting } from "./store";

export type Outcome = { kind: "sent" } | { kind: "waiting" } | { kind: "refused"; message: string };
export type ToSend = Pick<Waiting, "key" | "path" | "body" | "title" | "runId" | "entry">;

const LOOK_EVERY_MS = 15_000;
const FIRST_PAUSE_MS = 15_000;
const LONGEST_PAUSE_MS = 10 * 60_000;
/** Answers that say nothing against the thing itself: it is sent again. */
const NOT_NOW = new Set([408, 425, 429]);
/** Nobody is signed in, or somebody else: nothing more is sent until they are. */
const NOT_IN = new Set([401, 403]);

let busy: Promise<void> = Promise.resolve();
const listeners = new Set<() => void>();
const takers = new Set<(item: Waiting) => void | Promise<void>>();
const changed = () => {
  for (const listener of listeners) listener();
};

/** Hears of everything that comes to the outbox or leaves it. */
export function onChange(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Hears of everything that the server has taken. */
export function onTaken(taker: (item: Waiting) => void | Promise<void>): () => void {
  takers.add(taker);
  return () => takers.delete(taker);
}

/** All that is here of the coach who is signed in: what waits, and what came back. */
export async function waiting(): Promise<Waiting[]> {
  return (await (await shelves()).getAll("outbox")).filter(({ owner }) => isOwn(owner));
}

/** How many things of others are here, that are sent as soon as they sign in on this device. */
export async function ofOthers(): Promise<number> {
  return (await (await shelves()).getAll("outbox")).filter(({ owner }) => !isOwn(owner)).length;
}

type Answer = { kind: "sent" | "away" | "not in" | "failed" } | { kind: "refused"; refusal: Refusal };

async function sendOne(item: Waiting): Promise<Answer> {
  let answer: Response;
  try {
    answer = await fetch(item.path, {
      method: "PUT",
      headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken() ?? "" },
      body: JSON.stringify(item.body),
    });
  } catch {
    return { kind: "away" };
  }
  const { status } = answer;
  if (status >= 500 || NOT_NOW.has(status)) return { kind: "failed" };
  if (NOT_IN.has(status)) return { kind: "not in" };
  if (answer.ok) return { kind: "sent" };
  const { message, faults } = refusal(status, await answer.json().catch(() => null));
  return { kind: "refused", refusal: { status, message, field: String(faults[0]?.loc.at(-1) ?? "") || null } };
}

const pauseAfter = (tries: number): number => Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (tries - 1));

/** What became of a thing is written down, unless something newer has come in its place meanwhile. */
async function settle(item: Waiting, answer: Answer): Promise<void> {
  const database = await shelves();
  const now = await database.get("outbox", item.key);
  const newest = now?.since === item.since;
  switch (answer.kind) {
    case "sent":
      if (newest) await database.delete("outbox", item.key);
      for (const taker of takers) await taker(item);
      return;
    case "refused":
      if (newest) await database.put("outbox", { ...item, refusal: answer.refusal });
      return;
    case "failed": {
      const tries = item.tries + 1;
      if (newest) await database.put("outbox", { ...item, tries, notBefore: Date.now() + pauseAfter(tries) });
    }
  }
}

/** Send what waits, one after the other; nothing is sent twice at once. */
export function flush(): Promise<void> {
  const run = busy.then(async () => {
    for (const item of await waiting()) {
      if (item.refusal || item.notBefore > Date.now()) continue;
      const answer = await sendOne(item);
      await settle(item, answer);
      changed();
      if (answer.kind === "away" || answer.kind === "not in") return;
    }
  });
  busy = run.catch(() => {});
  return run;
}

/**
 * What became of a thing is read where it is kept: another flush, or another window, may have sent it before ours came
 * to it.
 */
async function outcomeOf(key: string): Promise<Outcome> {
  const item = await (await shelves()).get("outbox", key);
  if (!item) return { kind: "sent" };
  return item.refusal ? { kind: "refused", message: item.refusal.message } : { kind: "waiting" };
}

/** Keep things on this device, and then try to send them; they are sent later where that fails. */
export async function sendAll(items: readonly ToSend[]): Promise<Outcome[]> {
  const database = await shelves();
  for (const { key, path, body, title, runId, entry } of items) {
    const since = `${new Date().toISOString()} ${Math.random()}`;
    const fresh = { since, owner: ownerNow(), tries: 0, notBefore: 0, refusal: null };
    await database.put("outbox", { key, path, body, title, runId, entry, ...fresh });
  }
  changed();
  await flush();
  return Promise.all(items.map(({ key }) => outcomeOf(key)));
}

export const send = async (item: ToSend): Promise<Outcome> => (await sendAll([item]))[0] ?? { kind: "waiting" };

/** A letter that came back, or a thing that the server fails with, once more: as it is, or changed. */
export const again = (item: Waiting, body: unknown = item.body): Promise<Outcome> => send({ ...item, body });

/** Somebody has decided that it is not sent. */
export async function throwAway(key: string): Promise<void> {
  await (await shelves()).delete("outbox", key);
  changed();
}

/** From now on what waits is sent as soon as there is a network. */
export function start(): () => void {
  const timer = setInterval(() => void flush().catch(() => {}), LOOK_EVERY_MS);
  const online = async () => {
    const database = await shelves();
    for (const item of await waiting()) await database.put("outbox", { ...item, notBefore: 0 });
    await flush();
  };
  const back = () => void online().catch(() => {});
  window.addEventListener("online", back);
  void flush().catch(() => {});
  return () => {
    clearInterval(timer);
    window.removeEventListener("online", back);
  };
}
