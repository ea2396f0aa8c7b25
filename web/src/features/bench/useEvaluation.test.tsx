// @vitest-environment jsdom

import { QueryClientProvider } from "@tanstack/react-query";
import { act } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { makeQueryClient } from "../../api/queries";
import { type Draft, emptyDraft } from "../../domain/session/draft";
import { newPart, type Part } from "../../domain/session/tree";
import { makePlace } from "../../testing/mount";
import { useEvaluation, withRangesOf } from "./useEvaluation";

const { show } = makePlace();
afterEach(() => vi.unstubAllGlobals());

const evaluation = (kcal: number, low: number, high: number, grade: string) =>
  ({
    total_s: 240,
    reading: { figures: { kcal: { value: kcal, low, high } }, fade_onset: { bout: kcal }, verdict: { grade } },
  }) as unknown as Schemas["Evaluation"];

const partOf = (seconds: number, name = "Main set"): Part => ({
  ...newPart(name),
  tree: { type: "interval", seconds, tempo: "power" },
});
const secondsOf = ({ tree }: Part) => (tree.type === "interval" ? (tree.seconds ?? 0) : 0);
const ofParts = (parts: Part[], personId: number | null = null): Draft => {
  const empty = emptyDraft(personId);
  return { ...empty, document: { ...empty.document, parts } };
};
/** A session of one part so long, for somebody. */
const lasting = (seconds: number, personId: number | null = null) => ofParts([partOf(seconds)], personId);
function Total({ draft }: { draft: Draft }) {
  return useEvaluation(draft, null).evaluation?.total_s ?? "none yet";
}
/** What is drawn by name, and every row by what is told of it. */
function Rows({ draft }: { draft: Draft }) {
  const { names, summaries } = useEvaluation(draft, null);
  return `${names.join(", ")}: ${summaries.map((each) => (each ? `${each.text} at ${each.start_s}` : "…")).join(", ")}`;
}
/** A bench whose server answers with the length; what it was asked, and how to lay a draft there. */
function bench(answers: (asked: string) => boolean = () => true, What: typeof Total | typeof Rows = Total) {
  const asked: string[] = [];
  const letGo: string[] = [];
  const answer = async (request: Request) => {
    const { document, ranges, person_id }: Schemas["EvaluateIn"] = await request.json();
    const lengths = document.parts.map(secondsOf);
    const seconds = lengths.join(" and ");
    const question = `${seconds}${ranges ? " with ranges" : ""}${person_id ? ` for ${person_id}` : ""}`;
    asked.push(question);
    if (!answers(question)) {
      request.signal.addEventListener("abort", () => letGo.push(question));
      return new Promise<Response>(() => undefined);
    }
    let start_s = 0;
    const parts = lengths.map((total_s) => {
      start_s += total_s;
      return { text: `line of ${total_s}`, start_s: start_s - total_s, total_s };
    });
    return Response.json({ total_s: start_s, parts, reading: null });
  };
  vi.stubGlobal("fetch", answer);
  const client = makeQueryClient();
  const lay = (draft: Draft) =>
    show(
      <QueryClientProvider client={client}>
        <What draft={draft} />
      </QueryClientProvider>,
    ).textContent;
  const settle = () => act(() => new Promise((done) => setTimeout(done, 50)));
  return { asked, letGo, lay, settle };
}

describe("an answer in two steps", () => {
  it("shows the new verdict, and no number without a range", () => {
    const shown = withRangesOf(evaluation(60, 50, 70, "Off target"), evaluation(80, 80, 80, "On target"));
    expect(shown.reading?.verdict.grade).toBe("On target");
    expect(shown.reading?.figures.kcal).toEqual({ value: 60, low: 50, high: 70 });
  });

  it("is the best guess alone where nothing came before it, or where there is no work", () => {
    const guess = evaluation(80, 80, 80, "On target");
    expect(withRangesOf(undefined, guess)).toBe(guess);
    const none = { ...guess, reading: null };
    expect(withRangesOf(guess, none)).toBe(none);
  });

  it("stays until the next has come, also where its ranges have not", async () => {
    const { lay, settle } = bench((asked) => asked !== "25 with ranges" && !asked.startsWith("40"));
    lay(lasting(20));
    await settle();
    lay(lasting(25));
    await settle();
    expect(lay(lasting(25))).toBe("25");
    expect(lay(lasting(40))).toBe("25");
  });
});

describe("what is told of the rows", () => {
  const [first, second] = [partOf(20, "A"), partOf(30, "B")];

  it("goes with them, and what is drawn stays until the next is worked out", async () => {
    const { lay, settle } = bench((asked) => !/^(30|30 and 20|20 and 20 and 30)$/.test(asked), Rows);
    lay(ofParts([first, second]));
    await settle();
    const both = "A, B: line of 20 at 0, line of 30 at 20";
    expect(lay(ofParts([first, second]))).toBe(both);
    expect(lay(ofParts([second]))).toBe("A, B: line of 30 at 0");
    expect(lay(ofParts([second, first]))).toBe("A, B: line of 30 at 0, line of 20 at 30");
    expect(lay(ofParts([first, first, second]))).toBe("A, B: line of 20 at 0, line of 20 at 20, line of 30 at 40");
    expect(lay(ofParts([first, second]))).toBe(both);
  });

  it("is what stood in its place, where a part is another than before", async () => {
    const { lay, settle } = bench((asked) => asked !== "20 and 35", Rows);
    lay(ofParts([first, second]));
    await settle();
    expect(lay(ofParts([first, partOf(35, "B")]))).toBe("A, B: line of 20 at 0, line of 30 at 20");
  });
});

describe("the same edit once more", () => {
  it("is asked for once all of this one has come, and is there when it is made", async () => {
    const { asked, lay, settle } = bench();
    lay(lasting(20));
    await settle();
    expect(asked).toEqual(["20", "20 with ranges"]);
    lay(lasting(25));
    await settle();
    expect(asked.slice(2)).toEqual(["25", "25 with ranges", "30"]);
    expect(lay(lasting(30))).toBe("30");
    await settle();
    expect(asked.slice(5)).toEqual(["30 with ranges", "35"]);
  });

  it("is not asked again where it is made before the answer has come, and let go where another is made", async () => {
    const { asked, letGo, lay, settle } = bench((asked) => asked !== "30" && asked !== "40");
    lay(lasting(20));
    await settle();
    lay(lasting(25));
    await settle();
    lay(lasting(30));
    await settle();
    expect(asked.filter((each) => each === "30")).toEqual(["30"]);
    expect(letGo).toEqual([]);
    lay(lasting(50));
    await settle();
    lay(lasting(45));
    await settle();
    expect(asked.at(-1)).toBe("40");
    lay(lasting(60));
    await settle();
    expect(letGo).toEqual(["30", "40"]);
  });

  it("is none where it is another person who is looked at", async () => {
    const { asked, lay, settle } = bench();
    lay(lasting(20, 3));
    await settle();
    lay(lasting(20, 4));
    await settle();
    expect(asked.slice(2)).toEqual(["20 for 4", "20 with ranges for 4"]);
  });
});
