import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Refused, type Schemas, Unreachable } from "../../api/client";
import { evaluation as evaluationQuery } from "../../api/queries";
import { type Draft, emptyDraft } from "../../domain/session/draft";
import { onceMore } from "../../domain/session/onceMore";
import type { Part } from "../../domain/session/tree";
import { recallHeat } from "./heat";

type Evaluation = Schemas["Evaluation"];

const asking = (draft: Draft, wbgt: number | null, ranges: boolean) =>
  evaluationQuery({
    document: draft.document,
    person_id: draft.personId,
    target: draft.target,
    wbgt_c: wbgt,
    ranges,
  });

/** The best guess of now, with the ranges that were last worked out: those of now follow in a moment. */
export function withRangesOf(last: Evaluation | undefined, guess: Evaluation): Evaluation {
  if (!guess.reading || !last?.reading) return guess;
  const { figures, fade_onset, fails, bands } = last.reading;
  const verdict = { ...guess.reading.verdict, sureness: last.reading.verdict.sureness };
  return { ...guess, reading: { ...guess.reading, figures, fade_onset, fails, bands, verdict } };
}

/**
 * The draft worked out by the server's core in two steps: the best guess, which the score and the verdict are drawn
 * from, and then its ranges. The last good answer stays while the next is on its way.
 */
export function useEvaluation(draft: Draft, wbgt: number | null) {
  const client = useQueryClient();
  const whole = useMemo(() => asking(draft, wbgt, true), [draft, wbgt]);
  const best = useMemo(() => asking(draft, wbgt, false), [draft, wbgt]);
  const known = client.getQueryData(whole.queryKey) !== undefined;
  const quick = useQuery({ ...best, enabled: !known });
  const guessed = quick.data !== undefined && !quick.isPlaceholderData;
  const full = useQuery({ ...whole, enabled: known || guessed });
  const settled = full.data !== undefined && !full.isPlaceholderData;
  const guess = guessed && !known ? quick.data : undefined;
  const failed = full.error ?? quick.error;
  const found = useMemo(
    () => (settled ? full.data : guess && withRangesOf(full.data, guess)),
    [settled, full.data, guess],
  );
  /** Neither question's own last answer will do: that with ranges may be older than the best guess that is drawn. */
  const drawn = useRef<{ evaluation?: Evaluation; names: string[] }>({ names: [] });
  const { parts } = draft.document;
  const names = useMemo(() => parts.map((part) => part.name), [parts]);
  if (found) drawn.current = { evaluation: found, names };
  const summaries = useSummaries(parts, found?.parts, drawn.current.evaluation?.parts);
  useLookAhead(draft, wbgt, settled);
  return {
    /** What is drawn, and the names of its parts: where rows have just come or gone, those of before. */
    ...drawn.current,
    summaries,
    /** The ranges are not yet those of the draft. */
    guessing: !settled,
    away: [full, quick].some((query) => query.failureReason instanceof Unreachable),
    refused: failed instanceof Refused ? failed : null,
    retry: () => (guessed ? full.refetch() : quick.refetch()),
  };
}

type Summary = Schemas["PartSummary"];

/**
 * What is told of every part of the draft. Until it is worked out anew, a part takes what is known of it along, wherever
 * it goes: its line does not become another's for a moment.
 */
function useSummaries(parts: Part[], found: Summary[] | undefined, before: Summary[] | undefined) {
  const known = useRef(new WeakMap<Part, Summary>());
  useEffect(() => {
    for (const [index, part] of found ? parts.entries() : []) {
      const summary = found?.[index];
      if (summary) known.current.set(part, summary);
    }
  }, [parts, found]);
  if (found) return found;
  let start_s = 0;
  return parts.map((part, index) => {
    const summary = known.current.get(part) ?? before?.[index];
    const placed = summary && { ...summary, start_s };
    start_s += summary?.total_s ?? 0;
    return placed;
  });
}

/**
 * Whoever moves a number likely moves it again: once all of now is worked out, what the same edit once more would give is
 * asked for too, so that it is here when the key is pressed. Another edit lets go of it.
 */
function useLookAhead(draft: Draft, wbgt: number | null, settled: boolean) {
  const edits = useRef({ before: draft, now: draft });
  if (edits.current.now !== draft) edits.current = { before: edits.current.now, now: draft };
  const next = useMemo(() => {
    const document = onceMore(edits.current.before.document, draft.document);
    return document && { ...draft, document };
  }, [draft]);
  useQuery({ ...asking(next ?? draft, wbgt, false), enabled: settled && next !== null, notifyOnChangeProps: [] });
}

/**
 * Whether a session that is opened has been worked out, or could not be: nothing is drawn before, so that nothing moves.
 * Once it is drawn it stays, and the first question is not asked again.
 */
export function useFirstAnswer(draft: Draft | null): boolean {
  const [drawn, setDrawn] = useState(false);
  const [wbgt] = useState(recallHeat);
  const hasParts = draft !== null && draft.document.parts.length > 0;
  const { data, failureCount } = useQuery({
    ...asking(draft ?? emptyDraft(), wbgt, false),
    enabled: hasParts && !drawn,
  });
  const answered = draft !== null && (!hasParts || data !== undefined || failureCount > 0);
  if (answered && !drawn) setDrawn(true);
  return drawn || answered;
}

/** Asks for the best guess of a draft before anything of it is drawn. */
export function useAhead(wbgt: number | null) {
  const client = useQueryClient();
  return useCallback((next: Draft) => void client.prefetchQuery(asking(next, wbgt, false)), [client, wbgt]);
}
