import { useState } from "react";
import { keepWritten, recallWritten, type Written } from "../../domain/outbox/written";

/** What was written of everybody on the floor, kept on this device. */
export function useWritten(runId: string, places: number[]) {
  const [all, setAll] = useState<Record<number, Written>>(() =>
    Object.fromEntries(places.map((place) => [place, recallWritten(runId, place)])),
  );
  const of = (place: number): Written => all[place] ?? recallWritten(runId, place);
  return {
    of,
    change: (place: number, part: Partial<Written>) => {
      const next = { ...of(place), ...part };
      keepWritten(runId, place, next);
      setAll({ ...all, [place]: next });
    },
  };
}
