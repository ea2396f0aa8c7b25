import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { doing, inPairs, member, newCrew, ownEfforts, type Piece, whose, works } from "./crew";

const piece = (more: Partial<Piece>): Piece => ({ kind: "work", turn: null, modality: "bag", ...more }) as Piece;
const plan = (turns: (number | null)[], person: string | null = "Runa Velde") =>
  ({ person_id: person ? 3 : null, person, timeline: turns.map((turn) => piece({ turn })) }) as Schemas["RunPlan"];

describe("who is on the floor", () => {
  it("is whoever the session is for", () => {
    expect(newCrew(plan([null])).map(({ letter, name }) => [letter, name])).toEqual([["A", "Runa Velde"]]);
  });

  it("has a partner where work is done in pairs", () => {
    expect(inPairs(plan([0, 1]))).toBe(true);
    expect(newCrew(plan([0, 1])).map(({ letter }) => letter)).toEqual(["A", "B"]);
    const coming = [
      { id: 7, name: "Ife Marlowe" },
      { id: 9, name: "Dario Fenn" },
    ];
    expect(newCrew(plan([null]), coming).map(({ letter, name }) => [letter, name])).toEqual([
      ["A", "Ife Marlowe"],
      ["B", "Dario Fenn"],
    ]);
    expect(newCrew(plan([0, 1]), coming.slice(0, 1)).map(({ name }) => name)).toEqual(["Ife Marlowe", ""]);
    expect(member(1, null).name).toBe("");
  });
});

describe("whose turn it is", () => {
  it("goes round, and a swap by hand moves it by one", () => {
    expect([0, 1, 2, 3].map((turn) => whose(turn, 2, 0))).toEqual([0, 1, 0, 1]);
    expect([0, 1, 2, 3].map((turn) => whose(turn, 3, 1))).toEqual([1, 2, 0, 1]);
  });

  it("is every second one's where somebody trains with a partner who has no name", () => {
    expect(works(piece({ turn: 0 }), 0, 1, 0)).toBe(true);
    expect(works(piece({ turn: 1 }), 0, 1, 0)).toBe(false);
  });

  it("stays with the first one on pads that are held, until the coach swaps them", () => {
    const pads = piece({ turn: 0, held: true, modality: "pads" });
    expect([0, 1].map((shift) => works(pads, 0, 2, shift))).toEqual([true, false]);
    expect(doing(pads, 0, 2, 1)).toBe("holds");
  });

  it("makes an effort of each one's own part of what was held", () => {
    const held = {
      ...plan([0]),
      timeline: [{ ...piece({ turn: 0, held: true, modality: "pads" }), start_s: 0, seconds: 240 }],
      efforts: [{ start_s: 0, end_s: 240 }],
    } as Schemas["RunPlan"];
    const swapped = {
      spans: [
        [-10, 60, 0],
        [60, 150, 0],
        [150, 240, 1],
      ] as [number, number, number][],
    };
    expect(ownEfforts(held, swapped, 1, 2)).toEqual([{ start_s: 150, end_s: 240 }]);
    expect(ownEfforts(held, swapped, 0, 2)).toHaveLength(1);
    expect(ownEfforts(held, { spans: [[0, 240, 0]] }, 1, 2)).toEqual([]);
  });

  it("says what each does: the other rests, or holds the pads", () => {
    expect(doing(piece({ turn: 0 }), 0, 2, 0)).toBe("works");
    expect(doing(piece({ turn: 0 }), 1, 2, 0)).toBe("rests");
    expect(doing(piece({ turn: 0, modality: "pads" }), 1, 2, 0)).toBe("holds");
    expect(doing(piece({ kind: "rest" }), 0, 2, 0)).toBe("rests");
    expect(doing(piece({ kind: "recover" }), 1, 2, 0)).toBe("recovers");
  });
});
