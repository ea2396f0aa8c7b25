import type { Schemas } from "../../api/client";
import type { Draft } from "./draft";
import type { Part } from "./tree";

/** What another place brings along to the Bench: a whole session, or a part to add to what lies there. */
export type ToLay =
  | { kind: "session"; document: Schemas["SessionDocument"]; target: Draft["target"]; said: string }
  | { kind: "part"; part: Part; said: string };

/** The row of the first part that is neither warm-up nor cool-down; the first where there is none. */
export function mainRow(document: Schemas["SessionDocument"]): number {
  const main = document.parts.findIndex((part) => part.purpose !== "warm-up" && part.purpose !== "cool-down");
  return Math.max(0, main);
}

/** The draft with what is brought laid on it, and the row that is then in hand: the new part, or the main set. */
export function laid(draft: Draft, lay: ToLay): { draft: Draft; row: number } {
  if (lay.kind === "part") {
    const parts = [...draft.document.parts, lay.part];
    return { draft: { ...draft, document: { ...draft.document, parts } }, row: parts.length - 1 };
  }
  return { draft: { ...draft, document: lay.document, target: lay.target }, row: mainRow(lay.document) };
}
