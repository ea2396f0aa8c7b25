import type { Refused } from "../api/client";
import { lineFault } from "../api/lineFault";

interface Props {
  refused: Refused;
  text: string;
  onText: (text: string) => void;
}

/** What is wrong with a line, at which character, with the nearest known word one press away. */
export function Fault({ refused, text, onText }: Props) {
  const hint = lineFault(refused);
  if (!hint) {
    return (
      <>
        <span className="seal">Word</span> {refused.message}
      </>
    );
  }
  const before = text.slice(0, hint.character - 1);
  const word = text.slice(before.length).match(/^[\p{L}-]+/u)?.[0] ?? "";
  return (
    <>
      <span className="seal">Word</span> Character {hint.character}: {refused.message}{" "}
      {hint.suggestion && word && (
        <button
          type="button"
          className="link min-h-[24px]"
          onClick={() => onText(before + hint.suggestion + text.slice(before.length + word.length))}
        >
          Use {hint.suggestion}
        </button>
      )}{" "}
      <span className="quiet">For example: {hint.example}</span>
    </>
  );
}
