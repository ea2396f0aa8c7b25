/** What a link opens, and what goes back by it. Nobody is signed in here: it knows its own two addresses and no more. */

import type { Schemas } from "../../../api/client";
import { shelf } from "../../../domain/device/shelf";

export type Shared = Schemas["SharedOut"];
export type SentBack = Schemas["SentBackIn"];

/** Why a link opens nothing, in words; `gone` where asking again is of no use. */
export class Closed extends Error {
  constructor(
    message: string,
    readonly gone: boolean,
  ) {
    super(message);
  }
}

export const speechOf = (token: string): string => `/api/shared/${token}/speech/`;

async function saying(answer: Response): Promise<string> {
  const told = (await answer.json().catch(() => null)) as { detail?: unknown } | null;
  if (typeof told?.detail === "string") return told.detail;
  const first = Array.isArray(told?.detail) ? (told.detail[0] as { msg?: string }) : null;
  return first?.msg ?? `The server answered ${answer.status}. Try again in a moment.`;
}

export async function open(token: string): Promise<Shared> {
  let answer: Response;
  try {
    answer = await fetch(`/api/shared/${token}`);
  } catch {
    throw new Closed("There is no network, and this session was not opened here before.", false);
  }
  if (!answer.ok) throw new Closed(await saying(answer), answer.status === 404 || answer.status === 410);
  const shared = (await answer.json()) as Shared;
  void keep(token);
  return shared;
}

/** The worker may not stand ready yet when this is asked for the first time. */
async function keep(token: string): Promise<void> {
  try {
    await (await caches.open("yoisho-athlete")).add(`/api/shared/${token}`);
  } catch {
    // A browser that keeps nothing costs the session without a network.
  }
}

/** What is written and waits to be sent, by its run. */
interface Waiting {
  token: string;
  body: SentBack;
}
const waiting = shelf<Waiting>("sent-back", 1, (value) => {
  const read = value as Partial<Waiting> | null;
  return read?.token && read.body?.run_id ? (read as Waiting) : null;
});

export const keepUnsent = (token: string, body: SentBack): boolean => waiting.set({ token, body }, body.run_id);
export const forgetUnsent = (runId: string): void => waiting.remove(runId);
export const unsent = (token: string): Waiting[] =>
  waiting.ids().flatMap((id) => {
    const found = waiting.get(id);
    return found?.token === token ? [found] : [];
  });

/** Sends what waits. Gives the words of the server; raises `Closed` where it was refused, or nobody answered. */
export async function send({ token, body }: Waiting): Promise<string> {
  let answer: Response;
  try {
    answer = await fetch(`/api/shared/${token}/sent-back`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    });
  } catch {
    throw new Closed("There is no network. It is kept here, and sent as soon as there is one.", false);
  }
  const words = await saying(answer);
  if (!answer.ok) throw new Closed(words, answer.status < 500 && answer.status !== 429);
  waiting.remove(body.run_id);
  return words;
}
