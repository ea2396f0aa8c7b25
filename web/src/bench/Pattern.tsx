import { useId, useLayoutEffect, useRef } from "react";
import type { Typing } from "./useTyped";

interface Props {
  text: string;
  typed: string | null;
  typing: Typing;
  onTyped: (text: string | null) => void;
}

interface Hint {
  character: number;
  suggestion: string | null;
  example: string;
}

/** The pattern as text. What cannot be read is said at its character, and the last good score stays. */
export function Pattern({ text, typed, typing, onTyped }: Props) {
  const id = useId();
  const shown = typed ?? text;
  const input = useRef<HTMLInputElement>(null);
  // The canonical text comes from the server. Where it arrives under a caret, it stands selected, so that what is
  // typed just then takes its place and is not hung on to its end.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only where the text itself changes
  useLayoutEffect(() => {
    if (typed === null && document.activeElement === input.current) input.current?.select();
  }, [text]);
  const { refused, away, readAs, waiting } = typing;
  const hint = refused?.faults[0]?.ctx as Hint | null | undefined;
  const before = hint ? shown.slice(0, hint.character - 1) : "";
  const word = hint ? (shown.slice(before.length).match(/^[\p{L}-]+/u)?.[0] ?? "") : "";
  return (
    <div>
      <input
        ref={input}
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
          if (readAs !== null) onTyped(null);
        }}
      />
      <p id={`${id}-said`} role="status" className="min-h-[22px] pt-1 text-[13px]">
        {refused && hint ? (
          <>
            <span className="seal">Word</span> Character {hint.character}: {refused.message}{" "}
            {hint.suggestion && word && (
              <button
                type="button"
                className="link min-h-[24px]"
                onClick={() => onTyped(before + hint.suggestion + shown.slice(before.length + word.length))}
              >
                Use {hint.suggestion}
              </button>
            )}{" "}
            <span className="quiet">For example: {hint.example}</span>{" "}
            <button type="button" className="link min-h-[24px]" onClick={() => onTyped(null)}>
              Leave it as it was
            </button>
          </>
        ) : (
          <span className="quiet">
            {away
              ? "No connection: it is read as soon as there is one."
              : readAs !== null && readAs !== typed
                ? `Read as ${readAs}`
                : waiting
                  ? "Reading …"
                  : ""}
          </span>
        )}
      </p>
    </div>
  );
}
