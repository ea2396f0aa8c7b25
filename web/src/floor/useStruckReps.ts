import { useCallback, useRef } from "react";
import type { Schemas } from "../api/client";
import { pieceAt } from "../clock/view";

interface Floor {
  position: () => number;
  rep: () => void;
}

/** Strikes that a sensor notices count reps down: one for each pass of the combination. */
export function useStruckReps(plan: Schemas["RunPlan"], floor: Floor): () => void {
  const noticed = useRef({ start_s: -1, strikes: 0 });
  return useCallback(() => {
    const piece = pieceAt(plan.timeline, floor.position());
    if (!piece?.reps) return;
    if (noticed.current.start_s !== piece.start_s) noticed.current = { start_s: piece.start_s, strikes: 0 };
    noticed.current.strikes += 1;
    const each = Math.max(1, Math.round(piece.strikes / piece.reps));
    if (noticed.current.strikes % each === 0) floor.rep();
  }, [plan, floor.position, floor.rep]);
}
