import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { Refused, Unreachable } from "../api/client";
import { evaluation as evaluationQuery, session as sessionQuery } from "../api/queries";
import { asText, type Draft, draftOf, emptyDraft, forget, type Kept, keep, recall } from "./draft";
import { type History, record, redo, undo } from "./history";
import { keepHistory, recallHistory } from "./keptHistory";

export interface Bench {
  draft: Draft;
  /** The draft differs from what is saved. */
  dirty: boolean;
  canUndo: boolean;
  canRedo: boolean;
  edit: (change: Partial<Draft>) => void;
  undo: () => void;
  redo: () => void;
  typed: Kept["typed"];
  setTyped: (typed: Kept["typed"]) => void;
  /** The saved state that this edit began from. */
  savedText: string | null;
  revision: number | null;
  /** A draft is saved now, under this revision. */
  saved: (draft: Draft, revision: number) => void;
}

/** The draft on the bench with its history, kept on this device while it differs from what is saved. */
export function useDraft(start: Kept, sessionId: number | null): Bench {
  const [history, setHistory] = useState<History<Draft>>(() => recallHistory(sessionId, start.draft));
  const [base, setBase] = useState({ text: start.savedText, revision: start.revision });
  const [typed, setTyped] = useState(start.typed);
  const draft = history.now;
  const dirty = asText(draft) !== base.text;

  useEffect(() => {
    if (dirty || typed) keep(sessionId, { draft, savedText: base.text, revision: base.revision, typed });
    else forget(sessionId);
  }, [draft, base, typed, dirty, sessionId]);

  useEffect(() => {
    const timer = setTimeout(() => keepHistory(sessionId, history), 300);
    const now = () => keepHistory(sessionId, history);
    window.addEventListener("pagehide", now);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("pagehide", now);
    };
  }, [sessionId, history]);

  return {
    draft,
    dirty,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    edit: useCallback(
      (change: Partial<Draft>) => setHistory((before) => record(before, { ...before.now, ...change })),
      [],
    ),
    undo: useCallback(() => setHistory(undo), []),
    redo: useCallback(() => setHistory(redo), []),
    typed,
    setTyped,
    savedText: base.text,
    revision: base.revision,
    saved: useCallback((saved: Draft, revision: number) => setBase({ text: asText(saved), revision }), []),
  };
}

/** What the bench starts from: the edit kept on this device if there is one, else the saved session, else nothing. */
export function useStart(sessionId: number | null): { start: Kept | null; error: Error | null; waitingLong: boolean } {
  const query = useQuery({ ...sessionQuery(sessionId ?? 0), enabled: sessionId !== null });
  const [kept] = useState(() => recall(sessionId));
  const waitingLong = query.failureCount > 0;
  if (kept) return { start: kept, error: null, waitingLong: false };
  if (sessionId === null) {
    const draft = emptyDraft();
    return { start: { draft, savedText: asText(draft), revision: null, typed: null }, error: null, waitingLong };
  }
  if (!query.data || query.isFetching) return { start: null, error: query.error, waitingLong };
  const draft = draftOf(query.data);
  const start = { draft, savedText: asText(draft), revision: query.data.revision, typed: null };
  return { start, error: null, waitingLong: false };
}

/** The draft worked out by the server's core; the last good answer stays while the next is on its way. */
export function useEvaluation(draft: Draft, wbgt: number | null) {
  const query = useQuery(
    evaluationQuery({ document: draft.document, person_id: draft.personId, target: draft.target, wbgt_c: wbgt }),
  );
  return {
    evaluation: query.data,
    away: query.failureReason instanceof Unreachable,
    refused: query.error instanceof Refused ? query.error : null,
    retry: query.refetch,
  };
}
