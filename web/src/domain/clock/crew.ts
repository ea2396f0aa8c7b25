/** The people on the floor: who they are, what measures them, and whose turn it is. */

import type { Schemas } from "../../api/client";
import type { Run } from "./run";
import { pieceAt } from "./view";

type Plan = Schemas["RunPlan"];
export type Piece = Schemas["FloorInterval"];

export type Strap = "none" | "simulated" | "bluetooth";
export type Sensor = "none" | "simulated";

export interface Member {
  letter: string;
  personId: number | null;
  /** Empty for a partner without a name. */
  name: string;
  strap: Strap;
  sensor: Sensor;
}

/** Whether anything that is told of them is simulated. */
export const simulates = ({ strap, sensor }: Member): boolean => strap === "simulated" || sensor === "simulated";

export const LETTERS = ["A", "B", "C", "D", "E", "F"] as const;

export const inPairs = (plan: Plan): boolean => plan.timeline.some((piece) => piece.turn !== null);

export const firstName = (name: string): string => name.split(" ")[0] ?? name;

export const member = (place: number, person: { id: number; name: string } | null): Member => ({
  letter: LETTERS[place] ?? "?",
  personId: person?.id ?? null,
  name: person?.name ?? "",
  strap: "none",
  sensor: "none",
});

type Known = { id: number; name: string };

/** Who was planned to come, where anybody was; else whoever the session is for. In pairs one alone has a partner. */
export function newCrew(plan: Plan, who: readonly Known[] = []): Member[] {
  const known = plan.person_id != null && plan.person ? { id: plan.person_id, name: plan.person } : null;
  const coming = who.length > 0 ? who : [known];
  const crew = coming.slice(0, LETTERS.length).map((person, place) => member(place, person));
  return crew.length === 1 && inPairs(plan) ? [...crew, member(1, null)] : crew;
}

/** The place of the one whose turn it is; one alone is met by a partner without a name. */
export const whose = (turn: number, of: number, shift: number): number => (turn + shift) % Math.max(2, of);

/** Whether the one at a place works in an interval. */
export function works(piece: Pick<Piece, "kind" | "turn">, place: number, of: number, shift: number): boolean {
  if (piece.kind !== "work") return false;
  return piece.turn === null || whose(piece.turn, of, shift) === place;
}

/** The efforts of the one at a place: of what is held only what was struck before, between or after the swaps. */
export function ownEfforts(plan: Plan, run: Pick<Run, "spans">, place: number, of: number): Plan["efforts"] {
  return plan.efforts.flatMap((effort) => {
    const piece = pieceAt(plan.timeline, effort.start_s);
    if (!piece?.held) return [effort];
    return run.spans
      .filter(([from, to, shift]) => works(piece, place, of, shift) && from < effort.end_s && to > effort.start_s)
      .map(([from, to]) => ({ start_s: Math.max(from, effort.start_s), end_s: Math.min(to, effort.end_s) }))
      .slice(0, 1);
  });
}

/** What somebody does now, in one word. */
export function doing(piece: Piece | null, place: number, of: number, shift: number): string {
  if (!piece) return "";
  if (works(piece, place, of, shift)) return "works";
  if (piece.kind === "recover") return "recovers";
  return piece.kind === "work" && piece.modality === "pads" ? "holds" : "rests";
}
