import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { place, said } from "./FitPlot";

const row = (more: Partial<Schemas["FitRow"]>) => ({ unit: "", ratio: false, ...more }) as Schemas["FitRow"];

describe("a figure of the fit", () => {
  it("is said with three digits", () => {
    expect(said(row({}), 69.123)).toBe("69.1");
    expect(said(row({}), 0.1837)).toBe("0.184");
    expect(said(row({}), 1229.4)).toBe("1229");
  });

  it("is called endless where a protocol does not exhaust the model", () => {
    expect(said(row({ ratio: true }), 3600)).toBe("no end");
    expect(said(row({}), 3600)).toBe("3600");
  });
});

describe("the axis", () => {
  it("has no miss in the middle, and holds a wild one at its edge", () => {
    expect([0, 1, -1, 5, 40, -40].map(place)).toEqual([50, 60, 40, 100, 100, 0]);
  });
});
