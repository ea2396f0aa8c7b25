import { useEffect, useRef } from "react";
import { FLOOR, useKeys } from "../../ui/keymap";

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
  /** Of a class: who is where, and what changes. */
  board?: (() => void) | undefined;
}

/** The keys of the floor, of a keyboard or a remote. */
export function useFloorKeys(keys: FloorKeys) {
  const latest = useRef(keys);
  latest.current = keys;
  const hold = useRef<ReturnType<typeof setTimeout>>(undefined);
  const { counting, done, rep, skip, back, more, swap, nextPulse, switchSound, unwell } = keys;
  useKeys(
    FLOOR,
    {
      toggle: done ? keys.toLog : keys.toggle,
      skip,
      back,
      rep: counting ? rep : undefined,
      more,
      swap,
      nextPulse,
      switchSound,
      unwell,
      board: keys.board,
      leave: () => {
        hold.current = setTimeout(() => latest.current.leave(), HOLD_MS);
      },
    },
    { once: true },
  );
  useEffect(() => {
    const up = (event: KeyboardEvent) => {
      if (event.key === "Escape") clearTimeout(hold.current);
      // A focused button would be pressed a second time when the space bar comes up.
      if (event.key === " ") event.preventDefault();
    };
    window.addEventListener("keyup", up);
    return () => {
      clearTimeout(hold.current);
      window.removeEventListener("keyup", up);
    };
  }, []);
}
