// @vitest-environment jsdom

import { beforeEach, describe, expect, it } from "vitest";
import { asText, emptyDraft, forget, keep, recall } from "./draft";

describe("a draft on this device", () => {
  beforeEach(() => localStorage.clear());

  it("comes back after a reload, with what was being typed", () => {
    const kept = { draft: emptyDraft(3), savedText: null, revision: 2, typed: { part: 0, text: "8 x (20 sp" } };
    keep(12, kept);
    expect(recall(12)).toEqual(kept);
    expect(recall(null)).toBeNull();
  });

  it("is carried over from a document of version 2, with what is saved of it", () => {
    const action = { technique: "hook", side: "lead", level: "body" };
    const tree = {
      type: "interval",
      seconds: 60,
      tempo: "power",
      means: "bag",
      drill: { order: "turns", recall: false, combinations: [[[action]]] },
    };
    const document = { format: "yoisho-session", version: 2, title: "Old", parts: [{ name: "A", tree }] };
    const draft = { document, personId: 4, target: "bout-rehearsal", tags: [] };
    const savedText = JSON.stringify([document, 4, "bout-rehearsal", []]);
    localStorage.setItem("yoisho.bench.8", JSON.stringify({ draft, savedText, revision: 3, typed: null }));
    const found = recall(8);
    expect(found?.draft.document.version).toBe(4);
    expect(JSON.stringify(found?.draft.document)).toContain('"modality":"bag"');
    expect(JSON.stringify(found?.draft.document)).toContain('"height":"body"');
    expect(found?.draft.target).toBe("fight-rehearsal");
    expect(found && asText(found.draft)).toBe(found?.savedText);
  });

  it("is gone once it is saved", () => {
    keep(null, { draft: emptyDraft(), savedText: null, revision: null, typed: null });
    forget(null);
    expect(recall(null)).toBeNull();
  });

  it("is not read from what is broken or of another version", () => {
    localStorage.setItem("yoisho.bench.5", "{half");
    localStorage.setItem(
      "yoisho.bench.6",
      JSON.stringify({ draft: { document: { format: "yoisho-session", version: 9 } } }),
    );
    expect(recall(5)).toBeNull();
    expect(recall(6)).toBeNull();
  });

  it("differs from another when who or what for differs", () => {
    const draft = emptyDraft();
    expect(asText({ ...draft, personId: 4 })).not.toBe(asText(draft));
    expect(asText({ ...draft, target: "aerobic-base" })).not.toBe(asText(draft));
  });
});
