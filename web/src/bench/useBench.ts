import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { api, need, Refused, Unreachable } from "../api/client";
import { evaluation as evaluationQuery, retryWhileAway, session as sessionQuery } from "../api/queries";
import { asText, type Draft, emptyDraft, forget, type Kept, keep, recall } from "./draft";
import { type History, record, redo, undo } from "./history";
import { keepHistory, recallHistory } from "./keptHistory";

export interface Bench {
  draft: Draft;
  dirty: boolean;
  canUndo: boolean;
  canRedo: boolean;
  edit: (change: Partial<Draft>) => void;
  undo: () => void;
  redo: () => void;
  typed: Kept["typed"];
  setTyped: (typed: Kept["typed"]) => void;
}

/** The draft on the bench with its history, kept on this device while it differs from what is saved. */
export function useDraft(
  start: Kept,
  sessionId: number | null,
): Bench & { saved: (revision: number) => void; revision: number | null } {
  const [history, setHistory] = useState<History<Draft>>(() => recallHistory(sessionId, start.draft));
  const [savedText, setSavedText] = useState(start.savedText);
  const [revision, setRevision] = useState(start.revision);
  const [typed, setTyped] = useState(start.typed);
  const draft = history.now;
  const dirty = asText(draft) !== savedText;

  useEffect(() => {
    if (dirty || typed) keep(sessionId, { draft, savedText, revision, typed });
    else forget(sessionId);
  }, [draft, savedText, revision, typed, dirty, sessionId]);

  useEffect(() => {
    const timer = setTimeout(() => keepHistory(sessionId, history), 300);
    const now = () => keepHistory(sessionId, history);
    window.addEventListener("pagehide", now);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("pagehide", now);
    };
  }, [sessionId, history]);

  const edit = useCallback(
    (change: Partial<Draft>) => setHistory((before) => record(before, { ...before.now, ...change })),
    [],
  );
  return {
    draft,
    dirty,
    revision,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    edit,
    undo: useCallback(() => setHistory(undo), []),
    redo: useCallback(() => setHistory(redo), []),
    typed,
    setTyped,
    saved: (next) => {
      setRevision(next);
      setSavedText(asText(draft));
    },
  };
}

/** What the bench starts from: the edit kept on this device if there is one, else the saved session, else nothing. */
export function useStart(sessionId: number | null): { start: Kept | null; error: Error | null; waitingLong: boolean } {
  const query = useQuery({ ...sessionQuery(sessionId ?? 0), enabled: sessionId !== null });
  const [kept] = useState(() => recall(sessionId));
  if (kept) return { start: kept, error: null, waitingLong: false };
  if (sessionId === null) {
    return {
      start: { draft: emptyDraft(), savedText: asText(emptyDraft()), revision: null, typed: null },
      error: null,
      waitingLong: false,
    };
  }
  if (!query.data || query.isFetching) return { start: null, error: query.error, waitingLong: query.failureCount > 0 };
  const draft: Draft = {
    document: query.data.document,
    personId: query.data.person_id ?? null,
    target: query.data.target,
  };
  return {
    start: { draft, savedText: asText(draft), revision: query.data.revision, typed: null },
    error: null,
    waitingLong: false,
  };
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
    working: query.isFetching,
    retry: query.refetch,
  };
}

/** Save the draft: as a new session, over the saved one, or as a copy. Lost connections are tried again. */
export function useSave(
  sessionId: number | null,
  draft: Draft,
  revision: number | null,
  saved: (revision: number) => void,
) {
  const client = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    retry: retryWhileAway,
    mutationFn: async ({ copy }: { copy?: boolean; andRun?: boolean }) => {
      const body = { document: draft.document, person_id: draft.personId, target: draft.target, revision };
      if (sessionId === null || copy) return need(api.POST("/api/sessions", { body: { ...body, revision: null } }));
      return need(api.PUT("/api/sessions/{session_id}", { params: { path: { session_id: sessionId } }, body }));
    },
    onSuccess: (answer, { andRun }) => {
      saved(answer.revision);
      client.setQueryData(sessionQuery(answer.id).queryKey, answer);
      client.removeQueries({ queryKey: ["run", answer.id] });
      void client.invalidateQueries({ queryKey: ["sessions"] });
      if (answer.id !== sessionId) forget(sessionId);
      if (andRun) navigate(`/floor/${answer.id}`);
      else if (answer.id !== sessionId) navigate(`/bench/${answer.id}`, { replace: true });
    },
  });
}
