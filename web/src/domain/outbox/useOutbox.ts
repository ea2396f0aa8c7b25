import { useEffect, useState } from "react";
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

/** What waits on this device to be sent, and what came back. */
export const useOutbox = (): Waiting[] => useLook(waiting, NOTHING);

const NOTHING: Waiting[] = [];

/** How many things of other coaches wait here. */
export const useOfOthers = (): number => useLook(ofOthers, 0);
