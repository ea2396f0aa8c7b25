import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, Refused, type Schemas } from "../../api/client";
import { retryWhileAway, session as sessionQuery } from "../../api/queries";
import { once } from "../../domain/once";
import { asText, draftOf, forget, fromText, stateOf } from "../../domain/session/draft";
import type { Bench } from "./useBench";

/** After so long without a further edit a saved session is saved again by itself. */
const PAUSE_MS = 1500;

interface Save {
  copy?: boolean;
  andRun?: boolean;
  byItself?: boolean;
}

/**
 * Saving: by a key, and by itself once the session has been saved; as a new session, over the saved one, or as a copy.
 * Where it was saved elsewhere since, nothing is overwritten: the two are merged, or either is chosen.
 */
export function useSaving(sessionId: number | null, bench: Bench, waiting: boolean, say: (words: string) => void) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const { draft, dirty, revision, edit, saved } = bench;
  const [theirs, setTheirs] = useState<Schemas["SessionOut"] | null>(null);

  const lastSent = useRef<string | null>(null);
  const save = useMutation({
    retry: retryWhileAway,
    mutationFn: async ({ copy, byItself }: Save) => {
      const sent = draft;
      lastSent.current = asText(sent);
      const body = { ...stateOf(sent), revision: copy ? null : revision, by_itself: byItself ?? false };
      const answer = await once([copy ? "copy" : sessionId, body], (headers) =>
        sessionId === null || copy
          ? need(api.POST("/api/sessions", { body, headers }))
          : need(api.PUT("/api/sessions/{session_id}", { params: { path: { session_id: sessionId } }, body, headers })),
      );
      return { answer, sent };
    },
    onSuccess: ({ answer, sent }, { andRun }) => {
      saved(sent, answer.revision);
      setTheirs(null);
      client.setQueryData(sessionQuery(answer.id).queryKey, answer);
      client.removeQueries({ queryKey: ["run", answer.id] });
      void askAnew(client, { queryKey: ["sessions"] });
      void askAnew(client, { queryKey: ["versions", answer.id] });
      if (answer.id !== sessionId) forget(sessionId);
      if (andRun) navigate(`/floor/${answer.id}`);
      else if (answer.id !== sessionId) navigate(`/bench/${answer.id}`, { replace: true });
    },
    onError: async (error) => {
      if (!(error instanceof Refused) || error.status !== 409 || sessionId === null) return;
      setTheirs(await client.fetchQuery(sessionQuery(sessionId)));
    },
  });

  const { mutate, isPending, isError } = save;
  useEffect(() => {
    if (sessionId === null || !dirty || waiting || isPending || theirs) return;
    // What was refused as it is is not sent again by itself.
    if (isError && lastSent.current === asText(draft)) return;
    const timer = setTimeout(() => mutate({ byItself: true }), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [sessionId, dirty, waiting, isPending, isError, theirs, draft, mutate]);

  /** Whoever comes back to the page is told at once what was saved elsewhere meanwhile. */
  const latest = useRef({ dirty, revision });
  latest.current = { dirty, revision };
  useEffect(() => {
    if (sessionId === null) return;
    const look = async () => {
      if (document.visibilityState !== "visible") return;
      const found = await client.fetchQuery({ ...sessionQuery(sessionId), retry: false }).catch(() => null);
      if (!found || latest.current.revision === null || found.revision <= latest.current.revision) return;
      if (latest.current.dirty) setTheirs(found);
      else {
        const now = draftOf(found);
        edit(now);
        saved(now, found.revision);
        say("It was saved elsewhere meanwhile, and stands here as it is now. Ctrl Z brings back what was here.");
      }
    };
    window.addEventListener("focus", look);
    document.addEventListener("visibilitychange", look);
    return () => {
      window.removeEventListener("focus", look);
      document.removeEventListener("visibilitychange", look);
    };
  }, [sessionId, client, edit, saved, say]);

  const merging = useMutation({
    retry: retryWhileAway,
    mutationFn: async (other: Schemas["SessionOut"]) => {
      const base = fromText(bench.savedText) ?? draft;
      const body = { base: stateOf(base), mine: stateOf(draft), theirs: stateOf(draftOf(other)) };
      return { merged: await need(api.POST("/api/merge", { body })), other };
    },
    onSuccess: ({ merged, other }) => {
      saved(draftOf(other), other.revision);
      edit(draftOf(merged));
      setTheirs(null);
      save.reset();
      say(["Both are merged.", ...merged.notes, "Ctrl Z brings back yours alone."].join(" "));
    },
  });

  return {
    save,
    theirs,
    merge: () => theirs && merging.mutate(theirs),
    merging: merging.isPending,
    refused: merging.error,
    /** Take what was saved elsewhere; the own edit stays in the undo. */
    takeTheirs: () => {
      if (!theirs) return;
      const now = draftOf(theirs);
      edit(now);
      saved(now, theirs.revision);
      setTheirs(null);
      save.reset();
      say("What was saved elsewhere stands here now. Ctrl Z brings back yours.");
    },
  };
}
