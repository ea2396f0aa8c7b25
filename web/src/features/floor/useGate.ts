import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { gate } from "../../api/queries";
import type { Member } from "../../domain/clock/crew";

/**
 * What stands before the start: the stops of everybody on the floor. A coach goes past those that are not final once
 * they are seen; a final one holds as long as that person is on the floor.
 */
export function useGate(sessionId: number | null, crew: readonly Member[]) {
  const people = [...new Set(crew.flatMap(({ personId }) => personId ?? []))];
  const query = useQuery({ ...gate(sessionId ?? 0, people), enabled: sessionId !== null && people.length > 0 });
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
