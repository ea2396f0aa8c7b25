import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { classGate, gate } from "../../api/queries";
import type { Board } from "../../domain/clock/board";
import type { Member } from "../../domain/clock/crew";

/**
 * What stands before the start: the stops of everybody on the floor. A coach goes past those that are not final once
 * they are seen; a final one holds as long as that person is on the floor.
 */
export function useGate(sessionId: number | null, crew: readonly Member[], board: Board | null) {
  const ids = board ? board.people.map((each) => each.person_id) : crew.map(({ personId }) => personId);
  const people = [...new Set(ids.flatMap((id) => id ?? []))];
  const enabled = sessionId !== null && people.length > 0;
  const ofCrew = useQuery({ ...gate(sessionId ?? 0, people), enabled: enabled && !board });
  const ofClass = useQuery({ ...classGate(sessionId ?? 0), enabled: enabled && board !== null });
  const query = board ? ofClass : ofCrew;
  const answered = query.data !== undefined && !query.isPlaceholderData;
  const stopped = people.length > 0 && answered ? query.data : [];
  const which = JSON.stringify(stopped);
  const [seen, setSeen] = useState("[]");
  const final = stopped.some(({ stops }) => stops.some((stop) => stop.final));
  return {
    stopped,
    final,
    seen: seen === which,
    /** Nothing starts as it is. */
    shut: stopped.length > 0 && (final || seen !== which),
    /** The answer is on its way. */
    pending: people.length > 0 && !answered && query.failureCount === 0,
    /** Nobody could be asked: there is no connection. */
    unasked: people.length > 0 && !answered && query.failureCount > 0,
    see: (on: boolean) => setSeen(on ? which : "[]"),
  };
}
