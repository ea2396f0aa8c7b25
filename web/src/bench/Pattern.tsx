import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useState } from "react";
import { api, need, Refused, Unreachable } from "../api/client";
import { retryWhileAway } from "../api/queries";
import type { Node } from "./tree";

interface Props {
  text: string;
  typed: string | null;
  onTyped: (text: string | null) => void;
  onRead: (tree: Node) => void;
}

interface Hint {
  character: number;
  suggestion: string | null;
  example: string;
}

const PAUSE_MS = 60;

/** The pattern as text. What cannot be read is said at its character, and the last good score stays. */
export function Pattern({ text, typed, onTyped, onRead }: Props) {
  const id = useId();
  const shown = typed ?? text;
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
  const settled = asked === typed && typed !== null;
  useEffect(() => {
    if (settled && reading.data) onRead(reading.data.tree);
  }, [settled, reading.data, onRead]);

  const refused = settled && reading.error instanceof Refused ? reading.error : null;
  const hint = refused?.faults[0]?.ctx as Hint | null | undefined;
  const word = hint ? (shown.slice(hint.character - 1).match(/^[\p{L}-]+/u)?.[0] ?? "") : "";
  return (
    <div>
      <input
        id={id}
        aria-label="Pattern"
        data-pattern
        className="field text-[15px]"
        spellCheck={false}
        autoComplete="off"
        autoCapitalize="off"
        value={shown}
        aria-invalid={refused !== null}
        aria-describedby={`${id}-said`}
        onChange={(event) => onTyped(event.target.value)}
        onBlur={() => {
          if (settled && reading.data) onTyped(null);
        }}
      />
      <p id={`${id}-said`} role="status" className="min-h-[22px] pt-1 text-[13px]">
        {refused && hint ? (
          <>
            <span className="seal">Word</span> Character {hint.character}: {refused.message}{" "}
            {hint.suggestion && word && (
              <button
                type="button"
                className="link"
                onClick={() =>
                  onTyped(
                    shown.slice(0, hint.character - 1) +
                      hint.suggestion +
                      shown.slice(hint.character - 1 + word.length),
                  )
                }
              >
                Use {hint.suggestion}
              </button>
            )}{" "}
            <span className="quiet">For example: {hint.example}</span>
          </>
        ) : reading.failureReason instanceof Unreachable ? (
          <span className="quiet">No connection: it is read as soon as there is one.</span>
        ) : settled && reading.data && reading.data.text !== typed ? (
          <span className="quiet">Read as {reading.data.text}</span>
        ) : (
          <span className="quiet">{typed !== null && !reading.data ? "Reading …" : ""}</span>
        )}
      </p>
    </div>
  );
}
