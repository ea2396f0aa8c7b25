import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { find } from "./find";

const entry = (name: string, tags: string[], calls: string[], suits: string[]) =>
  ({ name, tags, note: "", drill: { text: "1-2", whole: { calls, suits } } }) as unknown as Schemas["EntryOut"];
const book = [
  entry("Rising tide", ["pads"], ["rear uppercut", "lead hook"], ["pads"]),
  entry("Bread and butter", ["basics"], ["jab", "cross"], ["bag", "pads"]),
];
const names = (search: string, bag = "") => find(book, search, bag).map((each) => each.name);

describe("a search of the book", () => {
  it("finds by name, tag, and what is called", () => {
    expect(names("tide")).toEqual(["Rising tide"]);
    expect(names("basics")).toEqual(["Bread and butter"]);
    expect(names("uppercut hook")).toEqual(["Rising tide"]);
    expect(names("")).toHaveLength(2);
  });

  it("leaves out what should not be done on the bag", () => {
    expect(names("", "bag")).toEqual(["Bread and butter"]);
    expect(names("tide", "bag")).toEqual([]);
  });
});
