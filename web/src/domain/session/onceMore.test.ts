import { describe, expect, it } from "vitest";
import { onceMore } from "./onceMore";
import { type Node, setIn } from "./tree";

const tabata: Node = {
  type: "repeat",
  count: 8,
  body: { type: "interval", seconds: 20, tempo: "power" },
  between: { type: "interval", seconds: 10, tempo: "rest" },
};

describe("a change done once more", () => {
  it("moves every number as far again, and nothing else", () => {
    const longer = setIn(tabata, ["between", "seconds"], 15);
    expect(onceMore(tabata, longer)).toEqual(setIn(tabata, ["between", "seconds"], 20));
    const both = setIn(setIn(tabata, ["body", "seconds"], 25), ["between", "seconds"], 9);
    expect(onceMore(tabata, both)).toEqual(setIn(setIn(tabata, ["body", "seconds"], 30), ["between", "seconds"], 8));
    const parts = [{ tree: tabata }, { tree: tabata }];
    expect(onceMore(parts, setIn(parts, [1, "tree", "count"], 9))).toEqual(setIn(parts, [1, "tree", "count"], 10));
  });

  it("is none where something came, went or became another thing", () => {
    expect(onceMore(tabata, setIn(tabata, ["body", "tempo"], "technique"))).toBeNull();
    expect(onceMore(tabata, setIn(tabata, ["between"], null))).toBeNull();
    expect(onceMore(tabata, setIn(tabata, ["body", "reps"], [10]))).toBeNull();
    expect(onceMore([tabata], [tabata, tabata])).toBeNull();
    expect(onceMore<unknown>([20, 10], { 0: 25, 1: 10 })).toBeNull();
    expect(onceMore(tabata, structuredClone(tabata))).toBeNull();
  });

  it("is none where no time or no round would be left", () => {
    expect(onceMore(tabata, setIn(tabata, ["between", "seconds"], 5))).toBeNull();
    expect(onceMore(tabata, setIn(tabata, ["between", "seconds"], 6))).toEqual(
      setIn(tabata, ["between", "seconds"], 2),
    );
  });
});
