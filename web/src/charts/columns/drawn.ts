import type { Schemas } from "../../api/client";
import type { Compared } from "./rows";

/** A session worked out, as it stands beside others. */
export interface Drawn {
  title: string;
  compared: Compared;
  blocks: { seconds: number; demand_frac: number }[];
  strokes: number;
  grade: string;
  /** Share of people like this one for whom it is well aimed; null where it is not worked out. */
  sureness: number | null;
  traces: Pick<Schemas["Traces"], "seconds" | "sprint_left" | "lactic_left">;
}

const UNMOVED: Drawn["traces"] = { seconds: [0, 1], sprint_left: [1, 1], lactic_left: [1, 1] };

/** An evaluation as it stands in a column; without work nothing is told of its effect. */
export function drawnOf(title: string, found: Schemas["Evaluation"]): Drawn {
  const { reading } = found;
  return {
    title,
    compared: { ...found, figures: reading?.figures ?? {} },
    blocks: found.timeline,
    strokes: reading?.verdict.strokes ?? 0,
    grade: reading?.verdict.grade ?? "No work yet",
    sureness: reading?.verdict.sureness ?? null,
    traces: reading?.traces ?? UNMOVED,
  };
}

type Answer = Pick<
  Schemas["ProposalOut"] | Schemas["ScaledOut"],
  "figures" | "total_s" | "work_s" | "blocks" | "strokes" | "grade" | "sureness" | "traces"
>;

/** A proposal, or a scaled session, as it stands in a column. */
export const answered = (title: string, answer: Answer): Drawn => ({
  title,
  compared: answer,
  blocks: answer.blocks,
  strokes: answer.strokes,
  grade: answer.grade,
  sureness: answer.sureness ?? null,
  traces: answer.traces,
});
