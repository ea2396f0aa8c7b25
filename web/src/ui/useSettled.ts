import { useEffect, useState } from "react";

/** The value once it has stood still for so long. */
export function useSettled<T>(value: T, pauseMs: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), pauseMs);
    return () => clearTimeout(timer);
  }, [value, pauseMs]);
  return settled;
}
