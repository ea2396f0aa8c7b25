import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, type Refused } from "../../api/client";
import { lineFault } from "../../api/lineFault";
import { retryWhileAway } from "../../api/queries";
import { once } from "../../domain/once";
import { forget, stateOf } from "../../domain/session/draft";
import type { Bench } from "./useBench";

/** A ladder over weeks that can be made a series: how many weeks it has, and the making. */
export interface Series {
  weeks: number;
  make: () => void;
  making: boolean;
  failed: string | null;
}

/** What a refused line would be as a series, where it holds a ladder over weeks. */
export function useSeries(bench: Bench, sessionId: number | null, refused: Refused | null): Series | null {
  const client = useQueryClient();
  const navigate = useNavigate();
  const make = useMutation({
    retry: retryWhileAway,
    mutationFn: () => {
      const body = { ...stateOf(bench.draft), part: bench.typed?.part ?? 0, text: bench.typed?.text ?? "" };
      return once(["series", body], (headers) => need(api.POST("/api/series", { body, headers })));
    },
    onSuccess: (made) => {
      void askAnew(client, { queryKey: ["sessions"] });
      bench.setTyped(null);
      if (sessionId === null) forget(null);
      const [first] = made;
      if (first) navigate(`/bench/${first.id}`, { replace: sessionId === null });
    },
  });
  const weeks = lineFault(refused)?.weeks ?? 1;
  if (weeks < 2) return null;
  return { weeks, make: () => make.mutate(), making: make.isPending, failed: make.error?.message ?? null };
}
