import type { Schemas } from "../../api/client";
import { type Draft, emptyDraft } from "./draft";
import type { Part } from "./tree";

/** What another place brings along to the Bench: a whole session, a part to add to what lies there, or a bare bench. */
export type ToLay =
  | { kind: "session"; document: Schemas["SessionDocument"]; target: Draft["target"]; said: string }
  | { kind: "part"; part: Part; said: string }
  | { kind: "empty"; said: string };

/** The row of the main set: of the part for the purpose, else the first that is neither warm-up nor cool-down. */
export function mainRow({ parts }: Schemas["SessionDocument"], target?: Draft["target"]): number {
  const stated = parts.findIndex((part) => part.purpose === target);
  const main = parts.findIndex((part) => part.purpose !== "warm-up" && part.purpose !== "cool-down");
  return Math.max(0, stated >= 0 ? stated : main);
}

/** The draft with what is brought laid on it, and the row that is then in hand: the new part, or the main set. */
export function laid(draft: Draft, lay: ToLay): { draft: Draft; row: number } {
  if (lay.kind === "part") {
    const parts = [...draft.document.parts, lay.part];
    return { draft: { ...draft, document: { ...draft.document, parts } }, row: parts.length - 1 };
  }
  if (lay.kind === "empty") return { draft: emptyDraft(), row: 0 };
  return { draft: { ...draft, document: lay.document, target: lay.target }, row: mainRow(lay.document, lay.target) };
}
