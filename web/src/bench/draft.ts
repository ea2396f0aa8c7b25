import type { Schemas } from "../api/client";

type Target = Schemas["SessionIn"]["target"];

/** What is on the bench: the document, who it is for, what for, and its tags. */
export interface Draft {
  document: Schemas["SessionDocument"];
  personId: number | null;
  target: Target;
  tags: string[];
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
    const whole = kept?.draft?.document?.format === "yoisho-session" && kept.draft.document.version === 2;
    return whole ? { ...kept, draft: { ...kept.draft, tags: kept.draft.tags ?? [] } } : null;
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
    tags: [],
  };
}

type State = Schemas["SessionState"];

/** A session as the server has it, as a draft; and the other way. */
export const draftOf = ({ document, person_id, target, tags }: State): Draft => ({
  document,
  personId: person_id ?? null,
  target,
  tags,
});

export const stateOf = ({ document, personId, target, tags }: Draft): State => ({
  document,
  person_id: personId,
  target,
  tags,
});

export const asText = (draft: Draft): string =>
  JSON.stringify([draft.document, draft.personId, draft.target, draft.tags]);

/** The draft that `asText` wrote; null where it is none. */
export function fromText(text: string | null): Draft | null {
  if (text === null) return null;
  const [document, personId, target, tags] = JSON.parse(text) as [Draft["document"], number | null, Target, string[]?];
  return { document, personId, target, tags: tags ?? [] };
}
