import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { ofOthers, onChange, waiting } from "./outbox";
import type { Waiting } from "./store";

/** What `look` finds in the outbox, found anew with every change of it. */
function useLook<T>(look: () => Promise<T>, first: T): T {
  const [found, setFound] = useState(first);
  useEffect(() => {
    const again = () => void look().then(setFound, () => {});
    again();
    return onChange(again);
  }, [look]);
  return found;
}

/** What waits on this device to be sent, and what came back; the log is asked for anew when something has gone. */
export function useOutbox(): Waiting[] {
  const client = useQueryClient();
  const items = useLook(waiting, NOTHING);
  const before = useRef(0);
  useEffect(() => {
    if (items.length < before.current) void client.invalidateQueries({ queryKey: ["log"] });
    before.current = items.length;
  }, [items, client]);
  return items;
}

const NOTHING: Waiting[] = [];

/** How many things of other coaches wait here. */
export const useOfOthers = (): number => useLook(ofOthers, 0);
