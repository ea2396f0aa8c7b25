/** The keys of the bench, as the list on a question mark tells them. */
export const KEYS: [string, string][] = [
  ["↑ ↓", "choose a row"],
  ["Shift ↑, Shift ↓", "pick several rows, to change them together"],
  ["Enter, Esc", "open it, close it"],
  ["Alt ↑, Alt ↓", "move the row, or the level, up or down"],
  ["A, D, Delete", "add a part, double it, remove it"],
  ["Tab, + −", "next field, change its value"],
  ["N, U, S, D, Delete", "level by level: nest, un-nest, split, double, remove"],
  ["Ctrl Space", "what could come next in a line"],
  [", .", "move the cursor of the score by 5 seconds"],
  ["]  [", "unfold the whole score, fold it again"],
  ["P", "let protocols be proposed; 1 to 5 takes one"],
  ["C, S, H, I", "compare, scale or convert, history, print"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["Ctrl S, R", "save, run"],
  ["?", "this list"],
];
