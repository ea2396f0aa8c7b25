import { describe, expect, it } from "vitest";
import { newPart, type Part } from "../../../domain/session/tree";
import { differing } from "./differing";

const part = (name: string): Part => newPart(name);

describe("two sessions side by side", () => {
  it("differ in the parts that the other does not have, wherever they stand", () => {
    const found = differing([part("Warm-up"), part("Main"), part("Cool-down")], [part("Main"), part("Long main")]);
    expect([...found.left]).toEqual([0, 2]);
    expect([...found.right]).toEqual([1]);
  });

  it("differ by number where one has a part twice", () => {
    const found = differing([part("Main"), part("Main")], [part("Main")]);
    expect([...found.left]).toEqual([1]);
    expect(found.right.size).toBe(0);
  });

  it("are the same where nothing differs", () => {
    const same = [part("Warm-up"), part("Main")];
    expect(differing(same, same)).toEqual({ left: new Set(), right: new Set() });
  });
});
