import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { inSeries } from "./inSeries";

const row = (id: number, series: string | null = null, week = 1) =>
  ({ id, series: series && { id: series, week, weeks: 3, due: false } }) as Schemas["SessionRow"];

describe("the library's list", () => {
  it("keeps the sessions of a series together, in the order of the weeks", () => {
    const rows = [row(1), row(2, "a", 3), row(3), row(4, "b", 1), row(5, "a", 1), row(6, "a", 2)];
    expect(inSeries(rows).map((each) => each.id)).toEqual([1, 5, 6, 2, 3, 4]);
  });
});
