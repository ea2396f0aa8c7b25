import { useEffect, useRef, useState } from "react";
import type { Schemas } from "./client";
import { streamed } from "./streamed";

type Line = Schemas["ProgressOut"] | Schemas["ClassProgress"];

export interface Streaming<L extends Line> {
  progress: { share: number; words: string } | null;
  error: Error | null;
  run: (body: unknown, then: (last: L) => void, told?: (line: L) => void) => void;
  stop: () => void;
}

/** Work that the server tells of while it goes on; what is asked anew, and leaving the page, stop it. */
export function useStreamed<L extends Line>(path: string, first: string): Streaming<L> {
  const [progress, setProgress] = useState<Streaming<L>["progress"]>(null);
  const [error, setError] = useState<Error | null>(null);
  const abort = useRef<AbortController | null>(null);
  useEffect(() => () => abort.current?.abort(), []);
  const run: Streaming<L>["run"] = (body, then, told) => {
    abort.current?.abort();
    const mine = new AbortController();
    abort.current = mine;
    setError(null);
    setProgress({ share: 0, words: first });
    const heard = (line: L) => {
      setProgress({ share: line.progress, words: line.words });
      told?.(line);
    };
    streamed<L>(path, body, heard, mine.signal)
      .then((last) => {
        if (mine.signal.aborted) return;
        setProgress(null);
        then(last);
      })
      .catch((fault: Error) => {
        if (mine.signal.aborted) return;
        setProgress(null);
        setError(fault);
      });
  };
  const stop = () => {
    abort.current?.abort();
    setProgress(null);
  };
  return { progress, error, run, stop };
}
