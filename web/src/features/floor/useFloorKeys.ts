import { useEffect, useRef } from "react";

/** How long a key is held that ends a run. */
export const HOLD_MS = 1000;

interface FloorKeys {
  rep: () => void;
  /** Reps are being counted. */
  counting: boolean;
  unwell: () => void;
  nextPulse: () => void;
  /** Partners change places. */
  swap: () => void;
  /** More time for a rest. */
  more: () => void;
  toggle: () => void;
  skip: () => void;
  back: () => void;
  switchSound: () => void;
  leave: () => void;
  toLog: () => void;
  done: boolean;
}

/** The keys of the floor, of a keyboard or a remote. */
export function useFloorKeys(keys: FloorKeys) {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    let hold: ReturnType<typeof setTimeout> | undefined;
    const down = (event: KeyboardEvent) => {
      const { toggle, skip, back, switchSound, leave, toLog, done, rep, counting, unwell, more, nextPulse, swap } =
        latest.current;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if ((event.target as HTMLElement).closest("input, select, dialog")) return;
      if (event.key === "Escape" && !event.repeat) hold = setTimeout(leave, HOLD_MS);
      const actions: Record<string, () => void> = {
        " ": done ? toLog : toggle,
        n: skip,
        ArrowRight: skip,
        b: back,
        ArrowLeft: back,
        s: switchSound,
        u: unwell,
        t: nextPulse,
        w: swap,
        "+": more,
        "=": more,
        ...(counting ? { Enter: rep } : {}),
        MediaPlayPause: done ? toLog : toggle,
        MediaTrackNext: skip,
        MediaTrackPrevious: back,
      };
      const action = actions[event.key] ?? actions[event.key.toLowerCase()];
      if (!action || event.repeat) return;
      event.preventDefault();
      action();
    };
    const up = (event: KeyboardEvent) => {
      if (event.key === "Escape") clearTimeout(hold);
      // A focused button would be pressed a second time when the space bar comes up.
      if (event.key === " ") event.preventDefault();
    };
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    return () => {
      clearTimeout(hold);
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
    };
  }, []);
}
