import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need } from "../../api/client";
import { retryWhileAway } from "../../api/queries";
import { once } from "../../domain/once";
import { stateOf } from "../../domain/session/draft";
import { laid, type ToLay } from "../../domain/session/toLay";
import type { Bench } from "./useBench";

/**
 * What another place has brought along is laid on the bench, once. Where it would take the place of a session that was
 * never saved, it waits for an answer.
 */
export function useBrought(bench: Bench, choose: (row: number, open: boolean) => void, say: (words: string) => void) {
  const place = useLocation();
  const navigate = useNavigate();
  const client = useQueryClient();
  const brought = useRef((place.state as { lay?: ToLay } | null)?.lay ?? null);
  const [asking, setAsking] = useState<ToLay | null>(null);
  const { draft, typed, setTyped, edit } = bench;

  const done = useCallback(() => {
    setAsking(null);
    navigate(place.pathname, { replace: true, state: null });
  }, [navigate, place.pathname]);
  const put = useCallback(
    (lay: ToLay, words = lay.said) => {
      const next = laid(draft, lay);
      setTyped(null);
      edit(next.draft);
      choose(next.row, lay.kind !== "empty");
      say(words);
      done();
    },
    [draft, setTyped, edit, choose, say, done],
  );
  useEffect(() => {
    const lay = brought.current;
    if (!lay) return;
    brought.current = null;
    const inTheWay = draft.document.parts.length > 0 || (typed?.text.trim() ?? "") !== "";
    if (lay.kind !== "part" && inTheWay) setAsking(lay);
    else put(lay);
  }, [draft, typed, put]);

  const save = useMutation({
    retry: retryWhileAway,
    mutationFn: (lay: ToLay) => {
      const body = { ...stateOf(draft), revision: null, by_itself: false };
      return once(["before", body], (headers) => need(api.POST("/api/sessions", { body, headers }))).then(() => lay);
    },
    onSuccess: (lay) => {
      void askAnew(client, { queryKey: ["sessions"] });
      put(lay, `${lay.said} ${draft.document.title} is saved in the library.`.trim());
    },
  });
  return {
    asking,
    title: draft.document.title,
    saving: save.isPending,
    refused: save.error?.message ?? null,
    saveFirst: () => asking && save.mutate(asking),
    replace: () => asking && put(asking, `${asking.said} Ctrl Z brings back ${draft.document.title}.`.trim()),
    stay: done,
  };
}
