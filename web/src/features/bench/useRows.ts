import { type Dispatch, useCallback, useEffect, useMemo } from "react";
import { flushSync } from "react-dom";
import { newPart, type Part } from "../../domain/session/tree";
import type { DeskAction, DeskState } from "./deskState";
import { doubledRows, joined, without } from "./several";
import type { Bench } from "./useBench";
import { useSeries } from "./useSeries";
import { type Typing, useTyped } from "./useTyped";

/** The rows of the outline: which is in hand, what is typed into it, and everything done to them. */
export function useRows(
  bench: Bench,
  sessionId: number | null,
  { chosen, open, picked }: DeskState,
  dispatch: Dispatch<DeskAction>,
) {
  const { draft, edit, ahead, typed, setTyped } = bench;
  const parts = draft.document.parts;
  const choose = useCallback(
    (row: number, nowOpen: boolean) => dispatch({ do: "choose", row, open: nowOpen }),
    [dispatch],
  );
  const say = useCallback((words: string | null) => dispatch({ do: "say", words }), [dispatch]);

  const withParts = useCallback((next: Part[]) => ({ document: { ...draft.document, parts: next } }), [draft.document]);
  const setParts = useCallback((next: Part[]) => edit(withParts(next)), [edit, withParts]);
  const withPart = useCallback(
    (index: number, part: Part) => parts.map((each, at) => (at === index ? part : each)),
    [parts],
  );
  const setPart = useCallback((index: number, part: Part) => setParts(withPart(index, part)), [setParts, withPart]);
  const aheadPart = (index: number, part: Part) => ahead(withParts(withPart(index, part)));

  const typedPart = typed?.part ?? null;
  /** A row that is typed into before it has a part. */
  const isFresh = typedPart !== null && typedPart >= parts.length;
  const fresh = useMemo(
    () => (isFresh ? newPart(parts.length ? `Part ${parts.length + 1}` : "Main set") : null),
    [isFresh, parts.length],
  );
  const onRead = useCallback(
    (part: Part) => {
      if (typedPart !== null) setParts(parts.toSpliced(typedPart, 1, part));
    },
    [typedPart, parts, setParts],
  );
  const current = typedPart === null ? null : (parts[typedPart] ?? fresh);
  const line = useTyped(typed?.text ?? null, current, fresh !== null, onRead);
  const series = useSeries(bench, sessionId, line.refused);
  const typing: Typing = { ...line, series };
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
    if (leftRow && line.several) lay();
    else if (leftRow && !line.waiting) setTyped(null);
  }, [leftRow, line, lay, setTyped]);

  return {
    parts,
    /** The rows of the outline: the parts, and the one that is typed into before it has a part. */
    rows: fresh ? [...parts, fresh] : parts,
    choose,
    say,
    setParts,
    setPart,
    aheadPart,
    typing,
    lay,
    /** A new row, empty or with a line in it; another one only once the last has its part. */
    add: (text = "") => {
      // At once, so that what is typed right after it falls into the new row.
      flushSync(() => {
        if (!fresh || typing.blank) setTyped({ part: parts.length, text });
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
      if (index >= parts.length) return choose(Math.max(0, index - 1), false);
      setParts(parts.toSpliced(index, 1));
      choose(Math.max(0, index - 1), false);
      say("Removed. Ctrl Z brings it back.");
    },
    /** Put a row in another's place; those between close up. */
    moveTo: (from: number, to: number) => {
      const part = parts[from];
      if (!part || !parts[to] || from === to) return;
      const order = parts
        .map((_part, index) => index)
        .toSpliced(from, 1)
        .toSpliced(to, 0, from);
      setParts(order.map((index) => parts[index] as Part));
      // The row in hand, and a line that is not read yet, go with their rows.
      dispatch({ do: "reordered", order });
      if (typed) setTyped({ ...typed, part: order.indexOf(typed.part) });
    },
    pick: (row: number, range: boolean) => dispatch({ do: "pick", row, range }),
    pickNone: () => dispatch({ do: "pick none" }),
    /** Change the rows that are picked together. */
    changePicked: (change: (parts: Part[], rows: ReadonlySet<number>) => Part[]) => {
      if (picked?.size) setParts(change(parts, picked));
    },
    doublePicked: () => picked?.size && setParts(doubledRows(parts, picked)),
    removePicked: () => {
      if (!picked?.size) return;
      setTyped(null);
      setParts(without(parts, picked));
      dispatch({ do: "picked removed", words: `${picked.size} removed. Ctrl Z brings them back.` });
    },
    joinPicked: () => {
      if (!picked || picked.size < 2) return;
      setTyped(null);
      setParts(joined(parts, picked));
      choose(Math.min(...picked), false);
    },
  };
}
