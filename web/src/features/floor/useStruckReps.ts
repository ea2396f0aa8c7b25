import { useCallback, useRef } from "react";
import type { Piece } from "../../domain/clock/crew";

/** Strikes that a sensor notices count reps down: one for each pass of the combination. */
export function useStruckReps(rep: () => void): (piece: Piece) => void {
  const noticed = useRef({ start_s: -1, strikes: 0 });
  return useCallback(
    (piece) => {
      if (!piece.reps) return;
      if (noticed.current.start_s !== piece.start_s) noticed.current = { start_s: piece.start_s, strikes: 0 };
      noticed.current.strikes += 1;
      const each = Math.max(1, Math.round(piece.strikes / piece.reps));
      if (noticed.current.strikes % each === 0) rep();
    },
    [rep],
  );
}
