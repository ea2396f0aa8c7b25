import { useCallback, useState } from "react";
import type { Schemas } from "../../api/client";
import { type Member, member, newCrew } from "../../domain/clock/crew";
import { keepRun, recallRunById } from "../../domain/clock/keptRun";
import { newRun } from "../../domain/clock/run";

/** Who is on the floor: set before the start, and kept with the run. The plan is for as many. */
export function useCrew(
  plan: Schemas["RunPlan"],
  runId: string,
  people: number,
  onPeople: (people: number) => void,
  who: readonly Schemas["Somebody"][],
) {
  const [crew, setCrew] = useState<Member[]>(() => {
    const fresh = newCrew(plan, who);
    const kept = recallRunById(runId)?.crew ?? fresh;
    return kept.slice(0, Math.max(people, fresh.length));
  });
  const write = useCallback(
    (next: Member[]) => {
      setCrew(next);
      const run = recallRunById(runId)?.run ?? newRun(runId, plan.count_in_s);
      keepRun({ plan, run, crew: next });
      if (next.length !== people) onPeople(next.length);
    },
    [plan, runId, people, onPeople],
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
