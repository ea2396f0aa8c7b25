// @vitest-environment jsdom

import { beforeEach, describe, expect, it, vi } from "vitest";
import { shelf } from "./shelf";

interface Line {
  text: string;
  times: number;
}
const lines = shelf<Line>("lines", 2, (value, version) => {
  if (version === 0) return typeof value === "string" ? { text: value, times: 1 } : null;
  return version === 1 ? { ...(value as Line), times: 1 } : (value as Line);
});

describe("what this device keeps", () => {
  beforeEach(() => localStorage.clear());

  it("comes back as it was, each thing by its id", () => {
    lines.set({ text: "a", times: 3 }, 7);
    lines.set({ text: "b", times: 1 }, "new");
    expect(lines.get(7)).toEqual({ text: "a", times: 3 });
    expect(lines.ids().toSorted()).toEqual(["7", "new"]);
    lines.remove(7);
    expect(lines.get(7)).toBeNull();
  });

  it("is read in today's shape, whichever version wrote it", () => {
    localStorage.setItem("yoisho.lines.old", JSON.stringify({ v: 1, value: { text: "c" } }));
    localStorage.setItem("yoisho.lines.older", JSON.stringify("plain"));
    expect(lines.get("old")).toEqual({ text: "c", times: 1 });
    expect(lines.get("older")).toEqual({ text: "plain", times: 1 });
  });

  it("is as if it were not there where it is broken, or of a later version", () => {
    localStorage.setItem("yoisho.lines.broken", '{"v": 2');
    localStorage.setItem("yoisho.lines.later", JSON.stringify({ v: 3, value: {} }));
    const strict = shelf<Line>("lines", 2, (value, version) => (version === 2 ? (value as Line) : null));
    expect(strict.get("broken")).toBeNull();
    expect(lines.get("later")).toBeNull();
  });

  it("stops nothing where the store is full", () => {
    const full = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    expect(lines.set({ text: "a", times: 1 })).toBe(false);
    full.mockRestore();
  });
});
