/** A run leaves this device when the server has its log, and not before. */

import { forgetRun } from "../clock/keptRun";
import { forgetJournal } from "./journal";
import { onTaken } from "./outbox";
import { shelves } from "./store";
import { forgetTold } from "./told";
import { forgetWritten } from "./written";

/** Takes away all that was kept of a run, once nobody's log of it waits any more or has come back. */
export async function release(runId: string): Promise<boolean> {
  const left = (await (await shelves()).getAll("outbox")).some((item) => item.entry && item.runId === runId);
  if (left) return false;
  forgetRun(runId);
  forgetWritten(runId);
  await forgetJournal(runId);
  await forgetTold(runId);
  return true;
}

export const releaseWhatIsTaken = (): (() => void) =>
  onTaken(async (item) => {
    if (item.entry) await release(item.runId);
  });
