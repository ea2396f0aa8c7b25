/** What happened in a run, written on this device at once and sent as a whole. */

import type { Schemas } from "../../api/client";
import { boardIn } from "../clock/board";
import { type Outcome, send } from "./outbox";
import { forget, type Happened, shelves } from "./store";

export async function note(happened: Omit<Happened, "moment">): Promise<void> {
  await (await shelves()).add("journal", { ...happened, moment: new Date().toISOString() });
}

/** Everything of a run, in the order it happened. */
export async function journalOf(runId: string): Promise<Happened[]> {
  return (await shelves()).getAllFromIndex("journal", "runId", runId);
}

/** The plan as it stood, as everything that is told of a run carries it. */
export const planOf = ({
  session_id,
  revision,
  document,
  person_id,
  people,
  board,
}: Schemas["RunPlan"]): Schemas["RunIn"] => ({
  session_id,
  revision,
  document,
  person_id,
  people,
  ...(board ? { board: boardIn(board) } : {}),
});

export async function sendJournal(runId: string, plan: Schemas["RunPlan"]): Promise<Outcome> {
  const events = (await journalOf(runId)).map(({ runId: _run, more, ...event }) => ({ ...event, more: more ?? {} }));
  return send({
    key: `journal ${runId}`,
    path: `/api/runs/${runId}/journal`,
    body: { run: planOf(plan), events },
    title: `what happened in ${plan.title}`,
    runId,
    entry: false,
  });
}

/** The run is logged: its journal stays on the server. */
export const forgetJournal = (runId: string): Promise<void> => forget("journal", runId);
