import { describe, expect, it } from "vitest";
import type { Node } from "../../domain/session/tree";
import { changedAll, doubled, levelKey, levelsOf, movedTo, nested, removed, split, unnested } from "./levels";

const work = (seconds: number, tempo = "power"): Node => ({ type: "interval", seconds, tempo }) as Node;
const rest = { type: "interval", seconds: 15, tempo: "rest" } as const;
const sequence = (...items: Node[]): Node => ({ type: "sequence", items });
const repeat = (count: number, body: Node, between: typeof rest | null = null): Node => ({
  type: "repeat",
  count,
  body,
  between,
});

// 2 x (30 technique, 30 speed, 30 power) rest 0:15; then 1:00
const thirds = sequence(work(30, "technique"), work(31, "speed"), work(32));
const thirty = sequence(repeat(2, thirds, rest), work(60, "rest"));
const inside = (index: number) => ["items", 0, "body", "items", index];

describe("the levels of a part", () => {
  it("are its repeats and intervals, each under the repeat around it", () => {
    const found = levelsOf(thirty).map((level) => [levelKey(level.path), level.depth]);
    expect(found).toEqual([
      ["items.0", 0],
      ["items.0.body.items.0", 1],
      ["items.0.body.items.1", 1],
      ["items.0.body.items.2", 1],
      ["items.1", 0],
    ]);
  });

  it("are split: an interval into halves, a repeat with its rest between", () => {
    expect(split(work(45), [])).toEqual(sequence(work(23), work(22)));
    expect(split(repeat(5, work(30), rest), [])).toEqual(
      sequence(repeat(3, work(30), rest), rest as Node, repeat(2, work(30), rest)),
    );
    expect(split(work(1), [])).toBeNull();
  });

  it("go into a repeat together where they stand side by side, and come out of it again", () => {
    const wrapped = nested(thirty, [inside(2), inside(1)]) as Node;
    expect(wrapped).toEqual(
      sequence(
        repeat(2, sequence(work(30, "technique"), repeat(2, sequence(work(31, "speed"), work(32)))), rest),
        work(60, "rest"),
      ),
    );
    expect(unnested(wrapped, inside(1))).toEqual(thirty);
  });

  it("do not go into one repeat from different places", () => {
    expect(nested(thirty, [inside(0), inside(2)])).toBeNull();
    expect(nested(thirty, [inside(0), ["items", 1]])).toBeNull();
    expect(unnested(thirty, inside(0))).toBeNull();
  });

  it("are doubled beside themselves, and the body of a repeat becomes two", () => {
    expect(levelsOf(doubled(thirty, inside(0)))).toHaveLength(6);
    expect(doubled(repeat(3, work(20)), ["body"])).toEqual(repeat(3, sequence(work(20), work(20))));
  });

  it("are removed; a repeat with nothing in it goes too, and one thing left is no sequence", () => {
    expect(removed(sequence(work(20), work(30)), ["items", 0])).toEqual(work(30));
    expect(removed(sequence(repeat(2, work(20)), work(30)), ["items", 0, "body"])).toEqual(work(30));
    expect(removed(work(20), [])).toBeNull();
  });

  it("move inside their own sequence and no further", () => {
    expect(movedTo(thirds, ["items", 2], 0)).toEqual(sequence(work(32), work(30, "technique"), work(31, "speed")));
    expect(movedTo(thirds, ["items", 2], 3)).toBeNull();
    expect(movedTo(work(20), [], 0)).toBeNull();
  });

  it("are changed together, pauses of a repeat left alone, and never to nothing", () => {
    const all = [inside(0), inside(1), inside(2)];
    expect(changedAll(thirty, all, { by: -40 })).toEqual(
      sequence(repeat(2, sequence(work(1, "technique"), work(1, "speed"), work(1)), rest), work(60, "rest")),
    );
    const flowing = levelsOf(changedAll(thirty, all, { tempo: "flow" })).map((level) =>
      level.node.type === "interval" ? level.node.tempo : "",
    );
    expect(flowing).toEqual(["", "flow", "flow", "flow", "rest"]);
  });
});
