import { describe, expect, it } from "vitest";
import { holdsAll } from "./holdsAll";

describe("a search by words", () => {
  it("wants every word somewhere, in any order and in any letters", () => {
    expect(holdsAll("hook JAB", ["Jab", "lead hook"])).toBe(true);
    expect(holdsAll("hook elbow", ["Jab", "lead hook"])).toBe(false);
  });

  it("holds for all where nothing is asked, and takes what is missing for nothing", () => {
    expect(holdsAll("  ", [])).toBe(true);
    expect(holdsAll("undefined", [undefined, null])).toBe(false);
  });
});
