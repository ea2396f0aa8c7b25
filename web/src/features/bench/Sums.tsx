import type { Schemas } from "../../api/client";
import { clock } from "../../domain/time";

/** What a part holds: strikes, work and rest. */
export function Sums({ summary }: { summary: Schemas["PartSummary"] | undefined }) {
  return (
    <>
      <span className="hidden text-right min-[700px]:block">{summary ? Math.round(summary.volume.strikes) : ""}</span>
      <span className="text-right">{summary ? clock(summary.work_s) : ""}</span>
      <span className="quiet hidden text-right min-[700px]:block">{summary ? clock(summary.rest_s) : ""}</span>
    </>
  );
}
