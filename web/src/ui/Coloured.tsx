import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import type { Schemas } from "../api/client";
import { lineFault } from "../api/lineFault";
import { read } from "../api/queries";
import { marked, painted } from "./painted";
import { useSettled } from "./useSettled";

interface Props {
  text: string;
  /** The text area that lies over it, see-through. */
  children: ReactNode;
}

const INK: Record<Schemas["Span"]["kind"], string> = {
  dose: "text-[var(--ink)]",
  effort: "text-[var(--aerobic)]",
  pause: "text-[var(--ink-2)]",
  modality: "text-[var(--moss)]",
  strikes: "text-[var(--lactic-ink)]",
  frame: "text-[var(--ink-2)]",
  word: "text-[var(--lactic-ink)]",
};

/** A line of shorthand, its words in ink by what they are; it grows with its text. No sense is in the colour alone. */
export function Coloured({ text, children }: Props) {
  const asked = useSettled(text);
  const { data, error } = useQuery({ ...read(asked), enabled: asked.trim() !== "" });
  const [known, setKnown] = useState<{ text: string; spans: Schemas["Span"][] }>({ text: "", spans: [] });
  const fault = lineFault(error);
  const spans = data?.spans ?? fault?.spans;
  if (spans && (known.text !== asked || known.spans !== spans)) setKnown({ text: asked, spans });
  const character = asked === text ? fault?.character : undefined;
  const pieces = painted(text, known.text, known.spans);
  return (
    <div className="grid">
      <div
        aria-hidden="true"
        className="field pointer-events-none col-start-1 row-start-1 text-[15px] whitespace-pre-wrap break-words"
      >
        {(character === undefined ? pieces : marked(pieces, character - 1)).map((piece) => (
          <span
            key={piece.start}
            data-fault={piece.fault}
            className={`${piece.kind ? INK[piece.kind] : ""} ${piece.fault ? "faulty" : ""}`}
          >
            {piece.text}
          </span>
        ))}
        {"\u200b"}
      </div>
      <div className="col-start-1 row-start-1 grid">{children}</div>
    </div>
  );
}
