import type { Schemas } from "../api/client";

export interface Piece {
  start: number;
  text: string;
  kind: Schemas["Span"]["kind"] | null;
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
