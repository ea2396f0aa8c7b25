import { describe, expect, it } from "vitest";
import { begin, record, redo, undo } from "./history";

describe("undo and redo", () => {
  it("go back and forth through every edit", () => {
    const edited = [2, 3, 4].reduce(record, begin(1));
    expect(undo(undo(edited)).now).toBe(2);
    expect(redo(undo(edited)).now).toBe(4);
  });

  it("stop at both ends", () => {
    expect(undo(begin(1)).now).toBe(1);
    expect(redo(begin(1)).now).toBe(1);
  });

  it("forget what was undone once something new is done", () => {
    const branched = record(undo(record(begin(1), 2)), 3);
    expect(redo(branched).now).toBe(3);
    expect(undo(branched).now).toBe(1);
  });

  it("do not count an edit that changes nothing", () => {
    const same = begin({ a: 1 });
    expect(record(same, same.now)).toBe(same);
  });
});
