import { useCallback, useState } from "react";
import type { Schemas } from "../../api/client";
import { type Member, member, newCrew } from "../../domain/clock/crew";
import { keepRun, recallRunById } from "../../domain/clock/keptRun";
import { newRun } from "../../domain/clock/run";

/** Who is on the floor: set before the start, and kept with the run. */
export function useCrew(plan: Schemas["RunPlan"], runId: string) {
  const [crew, setCrew] = useState<Member[]>(() => recallRunById(runId)?.crew ?? newCrew(plan));
  const write = useCallback(
    (next: Member[]) => {
      setCrew(next);
      const run = recallRunById(runId)?.run ?? newRun(runId, plan.count_in_s);
      keepRun({ plan, run, crew: next });
    },
    [plan, runId],
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
