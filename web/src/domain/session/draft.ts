import type { Schemas } from "../../api/client";
import { shelf } from "../device/shelf";

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

const VERSION = 4;
const RENAMED: Record<string, string> = { means: "modality", level: "height" };

/** A draft that was kept with an older version of the document, with its names of today. */
function renamed(value: unknown): unknown {
  if (value === "bout-rehearsal") return "fight-rehearsal";
  if (Array.isArray(value)) return value.map(renamed);
  if (typeof value !== "object" || value === null) return value;
  const fields = Object.entries(value).map(([name, each]) => [RENAMED[name] ?? name, renamed(each)]);
  const found = Object.fromEntries(fields);
  return found.format === "yoisho-session" && found.version < VERSION ? { ...found, version: VERSION } : found;
}

/** What is saved is told as text: it is brought up to date as the draft is. */
function upToDate(old: Kept): Kept {
  const savedText = old.savedText === null ? null : JSON.stringify(renamed(JSON.parse(old.savedText)));
  return { ...old, draft: renamed(old.draft) as Draft, savedText };
}

function readDraft(value: unknown, version: number): Kept | null {
  const old = value as Kept | null;
  const kept = old?.draft && version < 3 ? upToDate(old) : old;
  const whole = kept?.draft?.document?.format === "yoisho-session" && kept.draft.document.version === VERSION;
  return whole ? { ...kept, draft: { ...kept.draft, tags: kept.draft.tags ?? [] } } : null;
}

const drafts = shelf<Kept>("bench", 3, readDraft);
const idOf = (sessionId: number | null): number | string => sessionId ?? "new";

/** A full or forbidden store costs only the safety net, not the edit in hand. */
export function keep(sessionId: number | null, kept: Kept): void {
  drafts.set(kept, idOf(sessionId));
}

export const recall = (sessionId: number | null): Kept | null => drafts.get(idOf(sessionId));

export const forget = (sessionId: number | null): void => drafts.remove(idOf(sessionId));

export function emptyDraft(personId: number | null = null): Draft {
  return {
    document: { format: "yoisho-session", version: VERSION, title: "New session", parts: [] },
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
