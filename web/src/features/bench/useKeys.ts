import { useEffect } from "react";
import { flushSync } from "react-dom";

interface Keys {
  parts: number;
  chosen: number | null;
  open: boolean;
  choose: (part: number, open: boolean) => void;
  addPart: () => void;
  double: (part: number) => void;
  remove: (part: number) => void;
  moveTo: (from: number, to: number) => void;
  pick: (part: number, range: boolean) => void;
  unfold: (all: boolean) => void;
  /** Further places, each with its letter. */
  places: { key: string; can: boolean; open: () => void }[];
  undo: () => void;
  redo: () => void;
  save: () => void;
  run: () => void;
  propose: () => void;
  /** Something else has the screen. */
  quiet: boolean;
}

/** The keys of the bench. Single letters work only when no field has the caret. */
export function useKeys(keys: Keys) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (keys.quiet) return;
      const target = event.target as HTMLElement;
      const inField = target.closest("input, textarea, select") !== null;
      const inText = inField && !target.matches("[role=spinbutton], [type=checkbox], select");
      const letter = event.key.toLowerCase();
      if (event.ctrlKey || event.metaKey) {
        if (letter === "s") {
          event.preventDefault();
          keys.save();
        } else if (letter === "z" && !inText) {
          event.preventDefault();
          if (event.shiftKey) keys.redo();
          else keys.undo();
        }
        return;
      }
      if (event.altKey) {
        const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
        const to = (keys.chosen ?? 0) + by;
        if (by && keys.chosen !== null && to >= 0 && to < keys.parts && !inText) {
          event.preventDefault();
          flushSync(() => keys.moveTo(keys.chosen ?? 0, to));
          document.querySelector<HTMLButtonElement>(`[data-row="${to}"]`)?.focus();
        }
        return;
      }
      if (event.key === "Escape" && keys.open && keys.chosen !== null) {
        go(keys.chosen);
        return;
      }
      if (inField || target.closest("dialog")) return;
      if (event.shiftKey && event.key.startsWith("Arrow") && keys.parts) {
        const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
        const focused = Number(document.activeElement?.getAttribute("data-row") ?? at(keys));
        const to = Math.min(keys.parts - 1, Math.max(0, focused + by));
        event.preventDefault();
        flushSync(() => keys.pick(to, true));
        document.querySelector<HTMLButtonElement>(`[data-row="${to}"]`)?.focus();
        return;
      }
      const here = at(keys);
      const actions: Record<string, () => void> = {
        ArrowDown: () => go(Math.min(keys.parts - 1, here + 1)),
        ArrowUp: () => go(Math.max(0, here - 1)),
        a: keys.addPart,
        d: () => keys.parts && keys.double(here),
        Delete: () => keys.parts && keys.remove(here),
        r: keys.run,
        p: keys.propose,
        ...Object.fromEntries(keys.places.filter((place) => place.can).map((place) => [place.key, place.open])),
        "]": () => keys.unfold(true),
        "[": () => keys.unfold(false),
      };
      const action = actions[event.key] ?? actions[letter];
      if (!action || (event.key.startsWith("Arrow") && !keys.parts)) return;
      event.preventDefault();
      action();
    };
    const go = (row: number) => {
      // At once, so that a key that follows closely finds its row.
      flushSync(() => keys.choose(row, false));
      document.querySelector<HTMLButtonElement>(`[data-row="${row}"]`)?.focus();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
}

const at = (keys: Keys): number => keys.chosen ?? 0;
