// @vitest-environment jsdom

import { describe, expect, it } from "vitest";
import { makePlace } from "../../testing/mount";
import { FULL_HEIGHT } from "./ink";
import { SmallScore } from "./SmallScore";

const { show } = makePlace();

describe("a score in small", () => {
  it("has a bar for every interval: its length wide, its demand high, standing on the ground", () => {
    const blocks = [
      { seconds: 20, demand_frac: 1.7 },
      { seconds: 10, demand_frac: 0.1 },
    ];
    const place = show(<SmallScore blocks={blocks} label="Twenty-tens drawn small" />);
    expect(place.querySelector("svg")?.getAttribute("viewBox")).toBe(`0 0 30 ${FULL_HEIGHT}`);
    expect(place.querySelector("svg")?.getAttribute("aria-label")).toBe("Twenty-tens drawn small");
    const bars = [...place.querySelectorAll("rect")].map((bar) =>
      ["x", "width", "height"].map((name) => Number(bar.getAttribute(name))),
    );
    expect(bars).toEqual([
      [0, 20, 1.7],
      [20, 10, 0.1],
    ]);
    for (const bar of place.querySelectorAll("rect")) {
      expect(Number(bar.getAttribute("y")) + Number(bar.getAttribute("height"))).toBeCloseTo(FULL_HEIGHT);
    }
  });

  it("stays drawable with nothing in it", () => {
    expect(
      show(<SmallScore blocks={[]} label="x" />)
        .querySelector("svg")
        ?.getAttribute("viewBox"),
    ).toContain("0 0 1 ");
  });
});
