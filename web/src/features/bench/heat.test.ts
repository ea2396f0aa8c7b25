// @vitest-environment jsdom

import { beforeEach, describe, expect, it } from "vitest";
import { keepHeat, readHeat, recallHeat } from "./heat";

beforeEach(() => localStorage.clear());

describe("the heat in the hall", () => {
  it.each([
    ["26.5", 26.5],
    ["26,5", 26.5],
    [" 31 ", 31],
    ["-3", -3],
    ["", null],
    ["hot", undefined],
    ["99", undefined],
  ])("%j is read as %s", (text, value) => expect(readHeat(text)).toBe(value));

  it("is remembered for the day, and not for the next", () => {
    keepHeat(26.5, "Wed");
    expect(recallHeat("Wed")).toBe(26.5);
    expect(recallHeat("Thu")).toBeNull();
    keepHeat(null, "Wed");
    expect(recallHeat("Wed")).toBeNull();
  });

  it("is nothing where what was kept cannot be read", () => {
    localStorage.setItem("yoisho.heat", "{");
    expect(recallHeat("Wed")).toBeNull();
  });
});
