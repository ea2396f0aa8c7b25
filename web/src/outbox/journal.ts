/** What happened in a run, written on this device at once and sent as a whole. */

import { type Outcome, send } from "./outbox";
import { forget, type Happened, shelves } from "./store";

export async function note(happened: Omit<Happened, "moment">): Promise<void> {
  await (await shelves()).add("journal", { ...happened, moment: new Date().toISOString() });
}

/** Everything of a run, in the order it happened. */
export async function journalOf(runId: string): Promise<Happened[]> {
  return (await shelves()).getAllFromIndex("journal", "runId", runId);
}

export async function sendJournal(runId: string, sessionId: number, title: string): Promise<Outcome> {
  const events = (await journalOf(runId)).map(({ runId: _run, more, ...event }) => ({ ...event, more: more ?? {} }));
  return send({
    key: `journal ${runId}`,
    path: `/api/runs/${runId}/journal`,
    body: { session_id: sessionId, events },
    title: `what happened in ${title}`,
  });
}

/** The run is logged: its journal stays on the server. */
export const forgetJournal = (runId: string): Promise<void> => forget("journal", runId);
