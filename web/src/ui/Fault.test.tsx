// @vitest-environment jsdom

import { act } from "react";
import { describe, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { makePlace } from "../testing/mount";
import { Fault } from "./Fault";

const { show } = makePlace();
const refused = (ctx: Record<string, unknown> | null) =>
  new Refused(422, "“sped” is not an effort.", [{ type: "shorthand", loc: ["body", "text"], msg: "", ctx }]);

describe("a fault in a line", () => {
  it("is told with its character and an example, and mended in one press", () => {
    const onText = vi.fn();
    const hint = { character: 4, suggestion: "speed", example: "8 x (20 all out / 10 rest)" };
    const place = show(<Fault refused={refused(hint)} text="20 sped, 10 rest" onText={onText} />);
    expect(place.textContent).toContain("Character 4: “sped” is not an effort.");
    expect(place.textContent).toContain("For example: 8 x (20 all out / 10 rest)");
    act(() => place.querySelector("button")?.click());
    expect(onText).toHaveBeenCalledWith("20 speed, 10 rest");
  });

  it("offers nothing where no word is near or the fault is no word", () => {
    const none = { character: 4, suggestion: null, example: "x" };
    expect(show(<Fault refused={refused(none)} text="20 sped" onText={vi.fn()} />).querySelector("button")).toBeNull();
    const sign = { character: 4, suggestion: "speed", example: "x" };
    expect(show(<Fault refused={refused(sign)} text="20 %" onText={vi.fn()} />).querySelector("button")).toBeNull();
  });

  it("is told in plain words where it has no place", () => {
    expect(show(<Fault refused={refused(null)} text="" onText={vi.fn()} />).textContent).toBe(
      "Word “sped” is not an effort.",
    );
  });
});
