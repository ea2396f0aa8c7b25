import { useCallback, useEffect, useState } from "react";
import { flushSync } from "react-dom";
import type { Kept } from "./draft";
import { newPart, type Part } from "./tree";
import type { Bench } from "./useBench";
import { useTyped } from "./useTyped";

/** The rows of the outline: which is in hand, what is typed into it, and everything done to them. */
export function useRows(bench: Bench, start: Kept, say: (words: string) => void) {
  const { draft, edit, typed, setTyped } = bench;
  const parts = draft.document.parts;
  const [chosen, setChosen] = useState<number | null>(start.typed?.part ?? (parts.length ? parts.length - 1 : null));
  const [open, setOpen] = useState(start.typed !== null || parts.length === 1);
  const choose = useCallback((index: number, nowOpen: boolean) => {
    setChosen(index);
    setOpen(nowOpen);
  }, []);

  const setParts = useCallback(
    (next: Part[]) => edit({ document: { ...draft.document, parts: next } }),
    [edit, draft.document],
  );
  const setPart = useCallback(
    (index: number, part: Part) => setParts(parts.map((each, at) => (at === index ? part : each))),
    [setParts, parts],
  );

  const typedPart = typed?.part ?? null;
  const onRead = useCallback(
    (part: Part) => {
      if (typedPart !== null && parts[typedPart]) setPart(typedPart, part);
    },
    [typedPart, parts, setPart],
  );
  const current = typedPart === null ? null : (parts[typedPart] ?? null);
  const typing = useTyped(typed?.text ?? null, current, onRead);
  const { several } = typing;
  /** Put the several parts that the lines name in the place of the row. */
  const lay = useCallback(() => {
    if (!several || typedPart === null) return;
    setTyped(null);
    setParts(parts.toSpliced(typedPart, 1, ...several));
    choose(typedPart + several.length - 1, false);
    say(`${several.length} parts laid. Ctrl Z takes them back.`);
  }, [several, typedPart, parts, setParts, setTyped, choose, say]);
  const leftRow = typedPart !== null && (!open || chosen !== typedPart);
  useEffect(() => {
    if (leftRow && typing.several) lay();
    else if (leftRow && !typing.waiting) setTyped(null);
  }, [leftRow, typing, lay, setTyped]);

  return {
    parts,
    chosen,
    open,
    choose,
    setParts,
    setPart,
    typing,
    lay,
    add: (part = newPart(parts.length ? `Part ${parts.length + 1}` : "Main set")) => {
      // At once, so that what is typed right after it falls into the new row.
      flushSync(() => {
        setParts([...parts, part]);
        choose(parts.length, true);
      });
      document.querySelector<HTMLTextAreaElement>("[data-pattern]")?.select();
    },
    double: (index: number) => {
      const part = parts[index];
      if (part) setParts(parts.toSpliced(index, 0, part));
    },
    remove: (index: number) => {
      setTyped(null);
      setParts(parts.toSpliced(index, 1));
      choose(Math.max(0, index - 1), false);
      say("Removed. Ctrl Z brings it back.");
    },
    move: (index: number, by: 1 | -1) => {
      const part = parts[index];
      if (!part || !parts[index + by]) return;
      setParts(parts.toSpliced(index, 1).toSpliced(index + by, 0, part));
      setChosen(index + by);
      // A line that is not read yet goes with its row.
      if (typed?.part === index) setTyped({ ...typed, part: index + by });
      else if (typed?.part === index + by) setTyped({ ...typed, part: index });
    },
  };
}
