import { type Schemas, Unreachable } from "../../api/client";
import { useStreamed } from "../../api/useStreamed";

export type Solved = Schemas["SolvedOut"];
type Body = Schemas["SolveIn"];

/** Solving a camp with its progress; leaving the page stops it. */
export function useSolving(campId: number) {
  const streaming = useStreamed<Schemas["ProgressOut"]>(`/api/camps/${campId}/solve`, "Reading the camp");
  const run = (body: Body, then: (solved: Solved) => void) =>
    streaming.run(body, (last) => {
      if (!last.solved) throw new Unreachable("The answer broke off. Nothing is lost: solve again.");
      then(last.solved);
    });
  return { ...streaming, run };
}
