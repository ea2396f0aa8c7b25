import type { Schemas } from "../../api/client";
import { clock } from "../../domain/time";

/** The score in words, for those who hear it. */
export function describe(evaluation: Schemas["Evaluation"], names: string[]): string {
  const parts = evaluation.parts.map(
    (part, index) => `${names[index] ?? `Part ${index + 1}`}, ${clock(part.total_s)}: ${part.text}.`,
  );
  const reading = evaluation.reading;
  const stores = reading
    ? `The sprint store goes down to ${Math.round(100 * Math.min(...reading.traces.sprint_left))} percent, ` +
      `the lactic store to ${Math.round(100 * Math.min(...reading.traces.lactic_left))} percent.`
    : "";
  return [`Session of ${clock(evaluation.total_s)}.`, ...parts, stores].join(" ").trim();
}
