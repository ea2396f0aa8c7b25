import { describe, expect, it } from "vitest";
import { emptyDraft, type Kept } from "../../domain/session/draft";
import { newPart } from "../../domain/session/tree";
import { type DeskAction, type DeskState, deskOf, reduce } from "./deskState";

const draft = emptyDraft();
const draft4 = [newPart("a"), newPart("b"), newPart("c"), newPart("d")] as const;
const four = { ...draft, document: { ...draft.document, parts: [...draft4] } };
const start: Kept = { draft: four, savedText: null, revision: null, typed: null };
const desk = (...actions: DeskAction[]): DeskState => actions.reduce(reduce, deskOf(start));
const picked = (state: DeskState) => state.picked && [...state.picked].toSorted();

describe("what is in hand at the desk", () => {
  it("begins at the main set, or at the line that was being typed, and tells of changes that are not saved", () => {
    const [warm, ...rest] = draft4;
    const parts = [{ ...warm, purpose: "warm-up" as const }, ...rest];
    const framed = { ...start, draft: { ...four, document: { ...four.document, parts } } };
    expect(deskOf(framed)).toMatchObject({ chosen: 1, open: false, said: null });
    expect(deskOf({ ...start, typed: { part: 1, text: "3:00 p" } })).toMatchObject({ chosen: 1, open: true });
    expect(deskOf({ ...start, savedText: "{}" }).said).toContain("not saved yet");
  });

  it("picks rows from the one in hand, and lets go of one that is picked again", () => {
    const range = desk({ do: "choose", row: 1, open: true }, { do: "pick", row: 3, range: true });
    expect(picked(range)).toEqual([1, 2, 3]);
    expect(range).toMatchObject({ chosen: 1, open: false });
    expect(picked(reduce(range, { do: "pick", row: 2, range: false }))).toEqual([1, 3]);
  });

  it("works on single rows again once a row is chosen", () => {
    expect(desk({ do: "pick none" }).picked).toEqual(new Set());
    expect(desk({ do: "pick none" }, { do: "choose", row: 0, open: false }).picked).toBeNull();
  });

  it("goes with its row when rows change places", () => {
    expect(desk({ do: "choose", row: 0, open: true }, { do: "reordered", order: [1, 0, 2, 3] }).chosen).toBe(1);
  });

  it("unfolds every part of the score, and folds them again", () => {
    expect(desk({ do: "unfold", parts: 4 }).unfolded.size).toBe(4);
    expect(desk({ do: "unfold", parts: 4 }, { do: "unfold", parts: 0 }).unfolded.size).toBe(0);
  });
});
