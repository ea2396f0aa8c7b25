import type { Schemas } from "../api/client";

export interface Piece {
  start: number;
  text: string;
  kind: Schemas["Span"]["kind"] | null;
  /** Where the line cannot be read. */
  fault?: boolean;
}

/** The pieces with the word at `from` marked as the fault; a fault past the end of the text marks a space there. */
export function marked(pieces: Piece[], from: number): Piece[] {
  const text = pieces.map((piece) => piece.text).join("");
  if (from >= text.length) return [...pieces, { start: text.length, text: "\u00a0", kind: null, fault: true }];
  const word = text.slice(from).match(/^[\p{L}\p{N}-]+/u)?.[0] ?? "";
  const to = from + Math.max(1, word.length);
  const cut = (piece: Piece, start: number, end: number, fault: boolean): Piece[] => {
    const [first, last] = [Math.max(piece.start, start), Math.min(piece.start + piece.text.length, end)];
    if (last <= first) return [];
    return [{ ...piece, start: first, text: text.slice(first, last), ...(fault && { fault }) }];
  };
  return pieces.flatMap((piece) => [
    ...cut(piece, 0, from, false),
    ...cut(piece, from, to, true),
    ...cut(piece, to, text.length, false),
  ]);
}

/** The text cut where its kinds change. Spans known of an earlier text hold as far as the two begin alike. */
export function painted(text: string, knownOf: string, spans: Schemas["Span"][]): Piece[] {
  let alike = 0;
  while (alike < text.length && text[alike] === knownOf[alike]) alike += 1;
  const pieces: Piece[] = [];
  let at = 0;
  const add = (end: number, kind: Piece["kind"]) => {
    if (end > at) pieces.push({ start: at, text: text.slice(at, end), kind });
    at = Math.max(at, end);
  };
  for (const span of spans) {
    if (span.start >= alike) break;
    add(span.start, null);
    add(Math.min(span.end, alike), span.kind);
  }
  add(text.length, null);
  return pieces;
}
