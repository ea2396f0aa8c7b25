import type { Schemas } from "../api/client";

type Target = Schemas["SessionIn"]["target"];

/** What is on the bench: the document, who it is for and what for. */
export interface Draft {
  document: Schemas["SessionDocument"];
  personId: number | null;
  target: Target;
}

/** A draft as it is kept on this device, so that a reload or a lost connection loses nothing. */
export interface Kept {
  draft: Draft;
  savedText: string | null;
  revision: number | null;
  typed: { part: number; text: string } | null;
}

const PREFIX = "yoisho.bench.";

export const keyOf = (sessionId: number | null): string => `${PREFIX}${sessionId ?? "new"}`;

export function keep(sessionId: number | null, kept: Kept): void {
  try {
    localStorage.setItem(keyOf(sessionId), JSON.stringify(kept));
  } catch {
    // A full or forbidden store costs only the safety net, not the edit in hand.
  }
}

export function recall(sessionId: number | null): Kept | null {
  try {
    const text = localStorage.getItem(keyOf(sessionId));
    const kept = text ? (JSON.parse(text) as Kept) : null;
    return kept?.draft?.document?.format === "yoisho-session" && kept.draft.document.version === 2 ? kept : null;
  } catch {
    return null;
  }
}

export function forget(sessionId: number | null): void {
  localStorage.removeItem(keyOf(sessionId));
}

export function emptyDraft(personId: number | null = null): Draft {
  return {
    document: { format: "yoisho-session", version: 2, title: "New session", parts: [] },
    personId,
    target: "lactic-capacity",
  };
}

export const asText = (draft: Draft): string => JSON.stringify([draft.document, draft.personId, draft.target]);
