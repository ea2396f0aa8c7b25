import { useEffect, useState } from "react";

/** A pause in which nobody types [ms]: what stands so long is asked about. */
const PAUSE_MS = 60;

/** The value once it has stood still for so long. */
export function useSettled<T>(value: T, pauseMs = PAUSE_MS): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), pauseMs);
    return () => clearTimeout(timer);
  }, [value, pauseMs]);
  return settled;
}
