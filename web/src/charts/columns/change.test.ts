import { describe, expect, it } from "vitest";
import { change } from "./change";

const figure = (value: number, spread: number) => ({ value, low: value - spread, high: value + spread });

describe("a change from what is on the bench", () => {
  it("is none where each lies within the other's range", () => {
    expect(change(figure(10, 2), figure(11, 2)).way).toBe("none");
    expect(change(figure(5, 0), figure(5, 0)).way).toBe("none");
  });

  it("has a way and a size where it is more than error", () => {
    expect(change(figure(10, 0.5), figure(12, 0.5))).toEqual({ way: "up", by: 2 });
    expect(change(figure(10, 0.5), figure(7, 4))).toEqual({ way: "down", by: -3 });
  });
});
