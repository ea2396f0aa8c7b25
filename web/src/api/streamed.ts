import { csrfToken, refusal, Unreachable } from "./client";

interface Line {
  error?: string | null | undefined;
}

/** Reads lines of JSON as the server tells them while it works; gives back the last, which is the answer. */
export async function streamed<L extends Line>(
  path: string,
  body: unknown,
  told: (line: L) => void,
  signal: AbortSignal,
): Promise<L> {
  let response: Response;
  try {
    response = await fetch(path, {
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
  let last: L | null = null;
  for (;;) {
    const { done, value } = (await reader?.read()) ?? { done: true, value: undefined };
    rest += text.decode(value, { stream: !done });
    const lines = rest.split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      // An empty line says that the work goes on.
      if (!line) continue;
      last = JSON.parse(line) as L;
      told(last);
    }
    if (done) break;
  }
  if (last?.error) throw new Error(last.error);
  if (!last) throw new Unreachable("The answer broke off. Nothing is lost: solve again.");
  return last;
}
