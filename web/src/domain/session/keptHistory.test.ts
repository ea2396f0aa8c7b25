// @vitest-environment jsdom

import { beforeEach, describe, expect, it } from "vitest";
import { emptyDraft } from "./draft";
import { begin, record, undo } from "./history";
import { keepHistory, recallHistory } from "./keptHistory";

const draft = (title: string) => ({ ...emptyDraft(), document: { ...emptyDraft().document, title } });

describe("undo after a reload", () => {
  beforeEach(() => localStorage.clear());

  it("goes on where it was", () => {
    const history = undo(record(record(begin(draft("a")), draft("b")), draft("c")));
    keepHistory(4, history);
    expect(recallHistory(4, draft("b"))).toEqual(history);
  });

  it("begins anew where the session is another by now, or nothing can be read", () => {
    keepHistory(4, record(begin(draft("a")), draft("b")));
    expect(recallHistory(4, draft("z"))).toEqual(begin(draft("z")));
    localStorage.setItem("yoisho.undo.5", "{half");
    expect(recallHistory(5, draft("a"))).toEqual(begin(draft("a")));
  });

  it("keeps no more than the last sixty", () => {
    const long = Array.from({ length: 100 }, (_, index) => draft(String(index))).reduce(record, begin(draft("a")));
    keepHistory(null, long);
    expect(recallHistory(null, draft("99")).past).toHaveLength(60);
  });
});
