import { useQueries, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, need, type Schemas } from "../../api/client";
import { retryWhileAway } from "../../api/queries";
import type { KeptRun } from "../../domain/clock/keptRun";
import { recordOf } from "../../domain/clock/record";
import { planOf } from "../../domain/outbox/journal";
import { toldOf } from "../../domain/outbox/told";

export interface Review {
  record: Schemas["RecordIn"];
  personId: number | null;
  /** Null where the server has not read it yet. */
  done: Schemas["Done"] | null;
  /** There is no network to ask. */
  lost: boolean;
}

/** What everybody on the floor did: what this device kept of it, and what the server reads from that. */
export function useReviews({ plan, run, crew }: KeptRun): { reviews: Review[]; reading: boolean } {
  const told = useQuery({
    queryKey: ["told", run.runId],
    queryFn: () => toldOf(run.runId, crew.length),
    networkMode: "always",
    // A browser that keeps nothing has no trace.
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const kept = useMemo(
    () =>
      crew.map(({ personId }, place) => ({
        record: recordOf(run, crew, place, told.data?.[place]),
        personId,
      })),
    [run, crew, told.data],
  );
  const answers = useQueries({
    queries: kept.map(({ record, personId }, place) => ({
      queryKey: ["review", run.runId, place],
      enabled: !told.isPending,
      retry: retryWhileAway,
      staleTime: Number.POSITIVE_INFINITY,
      queryFn: () => need(api.POST("/api/review", { body: { run: planOf(plan), person_id: personId, record } })),
    })),
  });
  const reviews = kept.map((one, place) => {
    const answer = answers[place];
    const lost = (answer?.failureCount ?? 0) > 0 || answer?.fetchStatus === "paused";
    return { ...one, done: answer?.data ?? null, lost };
  });
  return { reviews, reading: told.isPending };
}
