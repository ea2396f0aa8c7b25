import { useEffect, useRef } from "react";

interface EntryKeys {
  pick: (rpe: number) => void;
  save: () => void;
  mark: () => void;
}

/** 0 to 9 and X pick how hard it was, N marks a niggle, S saves. */
export function useEntryKeys(keys: EntryKeys) {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.closest("textarea, input:not([type=radio])") || event.ctrlKey || event.metaKey || event.altKey) return;
      const key = event.key.toLowerCase();
      if (/^\d$/.test(key)) latest.current.pick(Number(key));
      else if (key === "x") latest.current.pick(10);
      else if (key === "n") latest.current.mark();
      else if (key === "s") latest.current.save();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
