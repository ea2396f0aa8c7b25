import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, need, Refused, Unreachable } from "../api/client";
import { retryWhileAway } from "../api/queries";
import type { Node } from "./tree";

const PAUSE_MS = 60;

/** What is said of a line while it is being typed. */
export interface Typing {
  refused: Refused | null;
  away: boolean;
  readAs: string | null;
  /** The line has not reached the session yet: it is being read, or cannot be. */
  waiting: boolean;
}

/** Reads what is typed into the row whose tree is `current`; `onRead` gets the tree where it differs from that. */
export function useTyped(typed: string | null, current: Node | null, onRead: (tree: Node) => void): Typing {
  const [asked, setAsked] = useState<string | null>(typed);
  useEffect(() => {
    const timer = setTimeout(() => setAsked(typed), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  const reading = useQuery({
    queryKey: ["read", asked],
    queryFn: () => need(api.POST("/api/read", { body: { text: asked ?? "" } })),
    enabled: asked !== null,
    retry: retryWhileAway,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const settled = typed !== null && asked === typed;
  const answer = settled ? reading.data : undefined;
  const laid = answer !== undefined && JSON.stringify(answer.tree) === JSON.stringify(current);
  useEffect(() => {
    if (answer && !laid) onRead(answer.tree);
  }, [answer, laid, onRead]);
  return {
    refused: settled && reading.error instanceof Refused ? reading.error : null,
    away: settled && reading.failureReason instanceof Unreachable,
    readAs: answer?.text ?? null,
    waiting: typed !== null && !laid,
  };
}
