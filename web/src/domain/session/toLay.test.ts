import { describe, expect, it } from "vitest";
import { emptyDraft } from "./draft";
import { laid } from "./toLay";
import { newPart } from "./tree";

const warm = { ...newPart("Warm-up"), purpose: "warm-up" as const };

describe("what is brought to the Bench", () => {
  it("as a part stands behind what lies there, and is in hand", () => {
    const before = { ...emptyDraft(4), document: { ...emptyDraft().document, parts: [warm] } };
    const { draft, row } = laid(before, { kind: "part", part: newPart("Up and under"), said: "" });
    expect(draft.document.parts.map((part) => part.name)).toEqual(["Warm-up", "Up and under"]);
    expect([row, draft.personId]).toEqual([1, 4]);
  });

  it("as a bare bench leaves nothing of what lay there", () => {
    const before = { ...emptyDraft(4), document: { ...emptyDraft().document, parts: [warm] } };
    expect(laid(before, { kind: "empty", said: "" }).draft).toEqual(emptyDraft());
  });

  it("as a session takes the place of what lay there, keeps the person, and has the main set in hand", () => {
    const document = { ...emptyDraft().document, title: "Tabata", parts: [warm, newPart("Twenty-tens")] };
    const { draft, row } = laid(emptyDraft(4), { kind: "session", document, target: "lactic-capacity", said: "" });
    expect(draft).toEqual({ document, target: "lactic-capacity", personId: 4, tags: [] });
    expect(row).toBe(1);
  });
});
