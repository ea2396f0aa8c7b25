import { useEffect, useRef, useState } from "react";
import { csrfToken, refusal, type Schemas, Unreachable } from "../../api/client";

type Line = Schemas["ProgressOut"];
export type Solved = Schemas["SolvedOut"];
type Body = Schemas["SolveIn"];

/** Reads the lines that solving streams, as they come; the plan is in the last. */
export async function solve(
  campId: number,
  body: Body,
  told: (line: Line) => void,
  signal: AbortSignal,
): Promise<Solved> {
  let response: Response;
  try {
    response = await fetch(`/api/camps/${campId}/solve`, {
      method: "POST",
      headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken() ?? "" },
      body: JSON.stringify(body),
      signal,
    });
  } catch (error) {
    if (signal.aborted) throw error;
    throw new Unreachable("No connection to the server. Nothing is lost: solve again.");
  }
  if (!response.ok) throw refusal(response.status, await response.json().catch(() => null));
  const reader = response.body?.getReader();
  const text = new TextDecoder();
  let rest = "";
  let last: Line | null = null;
  for (;;) {
    const { done, value } = (await reader?.read()) ?? { done: true, value: undefined };
    rest += text.decode(value, { stream: !done });
    const lines = rest.split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      last = JSON.parse(line) as Line;
      told(last);
    }
    if (done) break;
  }
  if (last?.error) throw new Error(last.error);
  if (!last?.solved) throw new Unreachable("The answer broke off. Nothing is lost: solve again.");
  return last.solved;
}

interface Solving {
  progress: { share: number; words: string } | null;
  error: Error | null;
  run: (body: Body, then: (solved: Solved) => void) => void;
  stop: () => void;
}

/** Solving with its progress; leaving the page stops it. */
export function useSolving(campId: number): Solving {
  const [progress, setProgress] = useState<Solving["progress"]>(null);
  const [error, setError] = useState<Error | null>(null);
  const abort = useRef<AbortController | null>(null);
  useEffect(() => () => abort.current?.abort(), []);
  const run: Solving["run"] = (body, then) => {
    abort.current?.abort();
    const mine = new AbortController();
    abort.current = mine;
    setError(null);
    setProgress({ share: 0, words: "Reading the camp" });
    solve(campId, body, (line) => setProgress({ share: line.progress, words: line.words }), mine.signal)
      .then((found) => {
        if (mine.signal.aborted) return;
        setProgress(null);
        then(found);
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
