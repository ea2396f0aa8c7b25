import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { session as sessionQuery } from "../../api/queries";
import { asText, type Draft, draftOf, emptyDraft, forget, type Kept, keep, recall } from "../../domain/session/draft";
import { type History, record, redo, undo } from "../../domain/session/history";
import { keepHistory, recallHistory } from "../../domain/session/keptHistory";

export interface Bench {
  draft: Draft;
  /** The draft differs from what is saved. */
  dirty: boolean;
  canUndo: boolean;
  canRedo: boolean;
  edit: (change: Partial<Draft>) => void;
  /** An edit that is likely to come is worked out ahead. */
  ahead: (change: Partial<Draft>) => void;
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

/**
 * The draft on the bench with its history, kept on this device while it differs from what is saved. `ask` hears of every
 * edit before anything is drawn, and of what is likely to be edited.
 */
export function useDraft(start: Kept, sessionId: number | null, ask: (next: Draft) => void): Bench {
  const [history, setHistory] = useState<History<Draft>>(() => recallHistory(sessionId, start.draft));
  const [base, setBase] = useState({ text: start.savedText, revision: start.revision });
  const [typed, setTyped] = useState(start.typed);
  const draft = history.now;
  const latest = useRef(draft);
  latest.current = draft;
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

  const ahead = useCallback((change: Partial<Draft>) => ask({ ...latest.current, ...change }), [ask]);
  return {
    draft,
    dirty,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    edit: useCallback(
      (change: Partial<Draft>) => {
        ahead(change);
        setHistory((before) => record(before, { ...before.now, ...change }));
      },
      [ahead],
    ),
    ahead,
    undo: useCallback(() => setHistory(undo), []),
    redo: useCallback(() => setHistory(redo), []),
    typed,
    setTyped,
    savedText: base.text,
    revision: base.revision,
    saved: useCallback((saved: Draft, revision: number) => setBase({ text: asText(saved), revision }), []),
  };
}

const startFrom = (draft: Draft, revision: number | null): Kept => ({
  draft,
  savedText: asText(draft),
  revision,
  typed: null,
});

/**
 * What the bench starts from: the edit kept on this device if there is one, else the saved session, else nothing. It
 * starts once: what is asked of the server later never takes the place of the edit in hand.
 */
export function useStart(sessionId: number | null): { start: Kept | null; error: Error | null; waitingLong: boolean } {
  const [start, setStart] = useState<Kept | null>(
    () => recall(sessionId) ?? (sessionId === null ? startFrom(emptyDraft(), null) : null),
  );
  const query = useQuery({ ...sessionQuery(sessionId ?? 0), enabled: start === null });
  if (start === null && query.data && !query.isFetching) setStart(startFrom(draftOf(query.data), query.data.revision));
  return { start, error: start ? null : query.error, waitingLong: query.failureCount > 0 };
}
