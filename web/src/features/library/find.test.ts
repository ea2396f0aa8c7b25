import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { find } from "./find";

const protocol = (name: string, words: string[], lines = "3 × (3:00 power)") =>
  ({
    name,
    words,
    meaning: "",
    reason: "",
    target: "threshold",
    versions: [{ name: "club", note: "", lines }],
  }) as unknown as Schemas["ProtocolOut"];
const shelf = [protocol("Tabata", ["hiit"]), protocol("Threshold rounds", ["carry"], "3 × (1:00 carry)")];
const names = (search: string) => find(shelf, search, () => "threshold").map((each) => each.name);

describe("a search of the schools' protocols", () => {
  it("finds by name, by other words, by what is in the lines and by purpose", () => {
    expect(names("taba")).toEqual(["Tabata"]);
    expect(names("HIIT")).toEqual(["Tabata"]);
    expect(names("1:00 carry")).toEqual(["Threshold rounds"]);
    expect(names("threshold")).toEqual(["Tabata", "Threshold rounds"]);
  });

  it("wants every word, and shows all where nothing is asked", () => {
    expect(names("tabata carry")).toEqual([]);
    expect(names("  ")).toHaveLength(2);
  });
});
