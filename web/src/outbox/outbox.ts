/**
 * Things that must reach the server, however long the network is away or the tab is closed. Each is sent to an address
 * that takes the same thing twice as once, and leaves the device only when the server has answered.
 */

import { csrfToken, refusal } from "../api/client";
import { shelves, type Waiting } from "./store";

export type Outcome = { kind: "sent" } | { kind: "waiting" } | { kind: "refused"; message: string };

const TRY_AGAIN_MS = 15_000;
/** Answers that say nothing against the thing itself: it is sent again. */
const NOT_NOW = new Set([401, 403, 408, 425, 429]);

let busy: Promise<void> = Promise.resolve();
const listeners = new Set<() => void>();
const changed = () => {
  for (const listener of listeners) listener();
};

/** Hears of everything that comes to the outbox or leaves it. */
export function onChange(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export async function waiting(): Promise<Waiting[]> {
  return (await shelves()).getAll("outbox");
}

async function sendOne(item: Waiting): Promise<Outcome> {
  let answer: Response;
  try {
    answer = await fetch(item.path, {
      method: "PUT",
      headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken() ?? "" },
      body: JSON.stringify(item.body),
    });
  } catch {
    return { kind: "waiting" };
  }
  if (answer.status >= 500 || NOT_NOW.has(answer.status)) return { kind: "waiting" };
  if (!answer.ok) {
    return { kind: "refused", message: refusal(answer.status, await answer.json().catch(() => null)).message };
  }
  return { kind: "sent" };
}

/** Take away what was sent, unless something newer has come in its place meanwhile. */
async function remove(item: Waiting): Promise<void> {
  const database = await shelves();
  const now = await database.get("outbox", item.key);
  if (now && now.since === item.since) await database.delete("outbox", item.key);
  changed();
}

/** Send what waits, one after the other; nothing is sent twice at once. Gives what became of each. */
export function flush(): Promise<Map<string, Outcome>> {
  const outcomes = new Map<string, Outcome>();
  const run = busy.then(async () => {
    for (const item of await waiting()) {
      const outcome = await sendOne(item);
      outcomes.set(item.key, outcome);
      if (outcome.kind === "waiting") return;
      await remove(item);
    }
  });
  busy = run.catch(() => {});
  return run.then(() => outcomes);
}

/** Keep a thing on this device and try to send it; it is sent later where that fails. */
export async function send(item: Omit<Waiting, "since">): Promise<Outcome> {
  const since = `${new Date().toISOString()} ${Math.random()}`;
  await (await shelves()).put("outbox", { ...item, since });
  changed();
  return (await flush()).get(item.key) ?? { kind: "waiting" };
}

/** From now on what waits is sent as soon as there is a network. */
export function start(): () => void {
  const again = () => void flush();
  const timer = setInterval(again, TRY_AGAIN_MS);
  window.addEventListener("online", again);
  again();
  return () => {
    clearInterval(timer);
    window.removeEventListener("online", again);
  };
}
