import { describe, expect, it } from "vitest";
import type { Part } from "../../domain/session/tree";
import { doubledRows, joined, withEffort, without, withPurpose } from "./several";

const tree: Part["tree"] = {
  type: "repeat",
  count: 3,
  body: { type: "interval", seconds: 60, tempo: "technique" },
  between: { type: "interval", seconds: 30, tempo: "rest" },
};
const parts: Part[] = ["Warm-up", "Rounds", "Cool-down"].map((name) => ({ name, purpose: null, tree }));
const names = (of: Part[]) => of.map((part) => part.name);
const ends = new Set([0, 2]);

describe("several rows together", () => {
  it("are removed, and doubled after the last of them", () => {
    expect(names(without(parts, ends))).toEqual(["Rounds"]);
    expect(names(doubledRows(parts, new Set([0, 1])))).toEqual(["Warm-up", "Rounds", "Warm-up", "Rounds", "Cool-down"]);
  });

  it("get one purpose", () => {
    expect(withPurpose(parts, ends, "skill").map((part) => part.purpose)).toEqual(["skill", null, "skill"]);
  });

  it("get one effort for their work, and their pauses stay", () => {
    const [first, second] = withEffort(parts, new Set([0]), "power", (tempo) => tempo !== "rest");
    expect(first?.tree).toMatchObject({ body: { tempo: "power" }, between: { tempo: "rest" } });
    expect(second).toBe(parts[1]);
  });

  it("become one part with the name of the first", () => {
    const found = joined(parts, ends);
    expect(names(found)).toEqual(["Warm-up", "Rounds"]);
    expect(found[0]?.tree).toMatchObject({ type: "sequence", items: [{ count: 3 }, { count: 3 }] });
    expect(joined(parts, new Set([1]))).toBe(parts);
  });

  it("that are joined stay in the kit they were in", () => {
    const gloved = parts.map((part, index) => ({ ...part, gloves: index ? ("16-oz" as const) : null, kit: [] }));
    const [mixed] = joined(gloved, ends);
    expect(mixed?.gloves).toBeNull();
    expect(mixed?.tree).toMatchObject({ items: [{ body: { gloves: null } }, { body: { gloves: "16-oz" } }] });
    const [, alike] = joined(gloved, new Set([1, 2]));
    expect(alike?.gloves).toBe("16-oz");
    expect(alike?.tree).toMatchObject({ items: [tree, tree] });
  });
});
