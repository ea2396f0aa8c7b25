import type { Piece } from "../../domain/clock/crew";
import { clock } from "../../domain/time";

/** What is done in a piece, as it is told of what comes: of a rest that it is one. */
export function doneIn(piece: Piece): string {
  if (piece.tempo === "show") return "watch";
  if (piece.kind === "rest") return "rest";
  // A run that was begun before kit was told knows none.
  const kit = piece.kit_change?.length ? `${piece.kit_change.join(", ")}, ` : "";
  return kit + (piece.beside ? `${piece.doing}, ${piece.beside}` : piece.doing);
}

/** How long, or how many. */
export const dose = (piece: Piece): string =>
  piece.open_ended ? "open-ended" : piece.reps ? `${piece.reps} reps` : clock(piece.seconds);
