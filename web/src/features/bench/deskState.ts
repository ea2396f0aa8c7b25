import { asText, type Kept } from "../../domain/session/draft";
import { mainRow } from "../../domain/session/toLay";

/** What has the screen: the desk itself, or a page or sheet over it. */
export type View = { kind: "desk" | "scale" | "history" | "sendOut" } | { kind: "compare"; first: string | null };

/** What the coach has in hand at the desk; the session itself is the draft's. */
export interface DeskState {
  view: View;
  /** The row in hand, and whether it is open. */
  chosen: number | null;
  open: boolean;
  /** Rows picked to be changed together; null while single rows are worked on. */
  picked: ReadonlySet<number> | null;
  /** Parts whose score stays unfolded. */
  unfolded: ReadonlySet<number>;
  /** The measure whose intervals are lit. */
  lit: string | null;
  /** The last word said on what was done. */
  said: string | null;
  /** A save that waits for the line that is being typed. */
  wanted: { andRun: boolean } | null;
}

export type DeskAction =
  | { do: "show"; view: View }
  | { do: "choose"; row: number; open: boolean }
  /** Pick a row or let go of it; with `range`, everything from the row in hand. */
  | { do: "pick"; row: number; range: boolean }
  | { do: "pick none" }
  /** The rows stand in another order: where each stood before. */
  | { do: "reordered"; order: readonly number[] }
  | { do: "picked removed"; words: string }
  | { do: "unfold"; parts: number }
  | { do: "light"; measure: string | null }
  | { do: "say"; words: string | null }
  | { do: "want"; save: DeskState["wanted"] };

export function deskOf(start: Kept): DeskState {
  const parts = start.draft.document.parts.length;
  const changed = start.savedText !== null && asText(start.draft) !== start.savedText;
  return {
    view: { kind: "desk" },
    chosen: start.typed?.part ?? (parts ? mainRow(start.draft.document, start.draft.target) : null),
    open: start.typed !== null || parts === 1,
    picked: null,
    unfolded: new Set(),
    lit: null,
    said: changed ? "These changes were kept on this device and are not saved yet." : null,
    wanted: null,
  };
}

export function reduce(desk: DeskState, action: DeskAction): DeskState {
  switch (action.do) {
    case "show":
      return { ...desk, view: action.view };
    case "choose":
      return { ...desk, chosen: action.row, open: action.open, picked: null };
    case "pick":
      return picking(desk, action.row, action.range);
    case "pick none":
      return { ...desk, picked: desk.picked ? null : new Set() };
    case "reordered":
      // The row in hand goes with its row.
      return { ...desk, chosen: desk.chosen === null ? null : action.order.indexOf(desk.chosen) };
    case "picked removed":
      return { ...desk, chosen: 0, picked: new Set(), said: action.words };
    case "unfold":
      return { ...desk, unfolded: new Set(Array(action.parts).keys()) };
    case "light":
      return { ...desk, lit: action.measure };
    case "say":
      return { ...desk, said: action.words };
    case "want":
      return { ...desk, wanted: action.save };
  }
}

function picking(desk: DeskState, row: number, range: boolean): DeskState {
  const from = range && desk.chosen !== null ? desk.chosen : row;
  const picked = new Set(desk.picked ?? (range && desk.chosen !== null ? [desk.chosen] : []));
  if (range) for (let at = Math.min(from, row); at <= Math.max(from, row); at++) picked.add(at);
  else if (!picked.delete(row)) picked.add(row);
  return { ...desk, picked, open: false, chosen: range ? desk.chosen : row };
}
