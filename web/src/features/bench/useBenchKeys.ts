import { flushSync } from "react-dom";
import { BENCH, useKeys } from "../../ui/keymap";

interface BenchKeys {
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
  /** Further places of the bench; one that cannot be opened now is left out. */
  places: Partial<Record<"compare" | "scale" | "history" | "print" | "sendOut", () => void>>;
  undo: () => void;
  redo: () => void;
  save: () => void;
  run: () => void;
  propose: () => void;
  /** Something else has the screen. */
  quiet: boolean;
}

/** What the keys of the bench do. */
export function useBenchKeys(bench: BenchKeys) {
  const { parts, chosen, places } = bench;
  const here = chosen ?? 0;
  const within = (row: number) => Math.min(parts - 1, Math.max(0, row));
  /** At once, so that a key that follows closely finds its row. */
  const at = (row: number, change: () => void) => {
    flushSync(change);
    document.querySelector<HTMLButtonElement>(`[data-row="${row}"]`)?.focus();
  };
  const go = (row: number) => at(row, () => bench.choose(row, false));
  /** The row beside the one that has the focus, or else beside the one in hand. */
  const beside = (by: number) => within(Number(document.activeElement?.getAttribute("data-row") ?? here) + by);
  const pick = (by: number) => {
    const row = beside(by);
    at(row, () => bench.pick(row, true));
  };
  const move = (by: number) => {
    const row = here + by;
    if (chosen === null || row !== within(row)) return false;
    at(row, () => bench.moveTo(chosen, row));
  };
  const some = <A>(action: A) => (parts ? action : undefined);
  useKeys(
    BENCH,
    {
      up: some(() => go(beside(-1))),
      down: some(() => go(beside(1))),
      pickUp: some(() => pick(-1)),
      pickDown: some(() => pick(1)),
      moveUp: () => move(-1),
      moveDown: () => move(1),
      close: bench.open && chosen !== null ? () => go(chosen) : undefined,
      add: bench.addPart,
      double: some(() => bench.double(here)),
      remove: some(() => bench.remove(here)),
      unfold: () => bench.unfold(true),
      fold: () => bench.unfold(false),
      propose: bench.propose,
      compare: places.compare,
      scale: places.scale,
      history: places.history,
      print: places.print,
      sendOut: places.sendOut,
      undo: bench.undo,
      redo: bench.redo,
      save: bench.save,
      run: bench.run,
    },
    { quiet: bench.quiet },
  );
}
