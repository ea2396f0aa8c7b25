/** What was kept of a run for one of the people on the floor, as the server reads it. */

import type { Schemas } from "../../api/client";
import type { Fresh } from "../devices/watch";
import { rounded } from "../rounded";
import { type Member, simulates } from "./crew";
import type { Run } from "./run";

export function recordOf(run: Run, crew: Member[], place: number, told: Fresh | undefined): Schemas["RecordIn"] {
  const own = crew[place];
  return {
    played: run.spans.map(([from_s, to_s, shift]) => ({
      from_s: rounded(2, from_s),
      to_s: rounded(2, to_s),
      shift: shift ?? 0,
    })),
    stood: run.stood.map(([at_s, seconds]) => ({ at_s: rounded(2, at_s), seconds: rounded(2, seconds) })),
    counted: run.counted,
    reps: Object.entries(run.reps).map(([start_s, count]) => [Number(start_s), count]),
    place,
    of: Math.max(1, crew.length),
    heart: told?.heart ?? [],
    strikes: own && own.sensor !== "none" ? (told?.strikes ?? []) : null,
    simulated: own !== undefined && simulates(own),
  };
}

/** Those who are logged: whoever comes first, and all others who have a name. */
export const logged = (crew: Member[]): number[] =>
  crew.flatMap(({ personId }, place) => (place === 0 || personId !== null ? [place] : []));
