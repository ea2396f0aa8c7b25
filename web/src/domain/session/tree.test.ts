import { describe, expect, it } from "vitest";
import { changed, fieldsOf, type Node, setIn } from "./tree";

const interval = (seconds: number, tempo: "power" | "rest" | "recover" | "technique" = "power"): Node => ({
  type: "interval",
  seconds,
  tempo,
});
const thirds: Node = {
  type: "sequence",
  items: [
    {
      type: "repeat",
      count: 2,
      body: { type: "sequence", items: [interval(30, "technique"), interval(30)] },
      between: { type: "interval", seconds: 15, tempo: "rest" },
    },
    interval(60, "rest"),
  ],
};

describe("the fields of a row", () => {
  it("are read in the order the pattern is", () => {
    expect(fieldsOf(thirds).map((field) => field.label)).toEqual([
      "Rounds",
      "Work 1",
      "Work 2",
      "Rest between",
      "Then rest",
    ]);
  });

  it("call the outer of two repeats sets", () => {
    const sets: Node = {
      type: "repeat",
      count: 2,
      body: { type: "repeat", count: 8, body: interval(30), between: null },
      between: null,
    };
    expect(fieldsOf(sets).map((field) => field.label)).toEqual([
      "Sets",
      "Rounds",
      "Work",
      "Rest between",
      "Rest between sets",
    ]);
  });

  it("have the reset of a combination, the effort's own where none is said, and none to a beat", () => {
    const drill = { combinations: [], order: "turns" as const };
    const struck = { ...(interval(120) as Extract<Node, { type: "interval" }>), drill } as Node;
    const resets = { power: 2 };
    expect(fieldsOf(struck, resets).at(-1)).toMatchObject({ label: "Reset, s", value: 2, path: ["reset_s"] });
    expect(fieldsOf({ ...struck, reset_s: 0 } as Node, resets).at(-1)).toMatchObject({ label: "Reset, s", value: 0 });
    expect(fieldsOf({ ...struck, per_min: 60 } as Node, resets).map((field) => field.label)).not.toContain("Reset, s");
    expect(fieldsOf(interval(120), resets)).toHaveLength(1);
  });

  it("hold what the coach fixes, where something is fixed", () => {
    const fixed: Node = { ...(interval(120) as Extract<Node, { type: "interval" }>), per_min: 60, power_percent: 50 };
    expect(fieldsOf(fixed).map((field) => field.label)).toEqual(["Work", "Strikes a minute", "Power, %"]);
    const [, rate] = fieldsOf(fixed);
    if (!rate) throw new Error("no field");
    expect(changed(fixed, rate, 80)).toMatchObject({ per_min: 80, power_percent: 50 });
  });

  it("change one thing and leave the tree as it was", () => {
    const [rounds] = fieldsOf(thirds);
    if (!rounds) throw new Error("no field");
    const before = JSON.stringify(thirds);
    const after = changed(thirds, rounds, 5);
    expect(JSON.stringify(thirds)).toBe(before);
    expect(after).toMatchObject({ items: [{ count: 5 }, { seconds: 60 }] });
  });

  it("count reps where reps are counted, and leave ladders to the text", () => {
    const reps = (...steps: number[]): Node => ({ type: "interval", reps: steps, tempo: "power" });
    const [count] = fieldsOf(reps(20));
    if (!count) throw new Error("no field");
    expect(count).toMatchObject({ dose: { reps: 20 } });
    expect(changed(reps(20), count, 25)).toMatchObject({ reps: [25] });
    expect(fieldsOf(reps(10, 8, 6))[0]).toMatchObject({ dose: "ladder" });
  });

  it("change length and effort apart", () => {
    const work = fieldsOf(thirds)[1];
    if (!work) throw new Error("no field");
    expect(fieldsOf(changed(changed(thirds, work, 45), work, "power"))[1]).toMatchObject({
      dose: { seconds: 45 },
      tempo: "power",
    });
  });

  it("take a rest between away at 0:00 and bring it back", () => {
    const pause = fieldsOf(thirds)[3];
    if (!pause) throw new Error("no field");
    const without = changed(thirds, pause, 0);
    expect(without).toMatchObject({ items: [{ between: null }, {}] });
    expect(changed(without, pause, 20)).toMatchObject({ items: [{ between: { seconds: 20, tempo: "rest" } }, {}] });
  });

  it("keep a recovery a recovery when its length changes", () => {
    const active: Node = {
      type: "repeat",
      count: 3,
      body: interval(60),
      between: { type: "interval", seconds: 30, tempo: "recover" },
    };
    const pause = fieldsOf(active)[2];
    if (!pause) throw new Error("no field");
    expect(changed(active, pause, 45)).toMatchObject({ between: { seconds: 45, tempo: "recover" } });
  });
});

describe("a change by path", () => {
  it("makes new values along the path only", () => {
    const before = { a: [{ b: 1 }, { c: 2 }], d: {} };
    const after = setIn(before, ["a", 0, "b"], 9);
    expect(after).toEqual({ a: [{ b: 9 }, { c: 2 }], d: {} });
    expect(after.d).toBe(before.d);
    expect(after.a[1]).toBe(before.a[1]);
  });
});
