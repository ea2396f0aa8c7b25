import { useCallback, useState } from "react";
import type { Schemas } from "../api/client";
import { type Member, member, newCrew } from "../clock/crew";
import { keepRun, recallRun } from "../clock/keptRun";
import { newRun } from "../clock/run";

/** Who is on the floor: set before the start, and kept with the run. */
export function useCrew(plan: Schemas["RunPlan"]) {
  const [crew, setCrew] = useState<Member[]>(() => recallRun(plan.session_id)?.crew ?? newCrew(plan));
  const write = useCallback(
    (next: Member[]) => {
      setCrew(next);
      const run = recallRun(plan.session_id)?.run ?? newRun(crypto.randomUUID(), plan.count_in_s);
      keepRun({ plan, run, crew: next });
    },
    [plan],
  );
  return {
    crew,
    change: (place: number, part: Partial<Member>) =>
      write(crew.map((one, index) => (index === place ? { ...one, ...part } : one))),
    add: () => write([...crew, member(crew.length, null)]),
    /** The last one leaves. */
    less: () => write(crew.slice(0, -1)),
  };
}
