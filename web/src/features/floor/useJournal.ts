import { useCallback, useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { note, sendJournal } from "../../domain/outbox/journal";
import { rounded } from "../../domain/rounded";

/** What happened, at which session time [s]. */
export type Happened = (kind: Schemas["Event"]["kind"], at_s: number, more?: Record<string, string | number>) => void;

const PAUSE_MS = 2000;

/** Writes down what happens in a run, and sends it when nothing more has happened for a moment. */
export function useJournal(plan: Schemas["RunPlan"], runId: string): Happened {
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  return useCallback(
    (kind, at_s, more) => {
      const send = () => void sendJournal(runId, plan).catch(() => {});
      clearTimeout(timer.current);
      void note({ runId, kind, at_s: rounded(1, at_s), more })
        .then(() => {
          // What ends a run, or may never wait, is sent at once.
          if (kind === "end" || kind === "unwell") send();
          else timer.current = setTimeout(send, PAUSE_MS);
        })
        .catch(() => {
          // A browser that keeps nothing costs the journal, not the run.
        });
    },
    [plan, runId],
  );
}
