// @vitest-environment jsdom

import { act } from "react";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { makePlace, type } from "../../testing/mount";
import { Heat } from "./Heat";
import { VerdictSheet } from "./VerdictSheet";

const { show } = makePlace();

const reason = (measure: string, met: boolean) => ({
  measure,
  side: met ? "met" : "short",
  text: `${measure} said.`,
  intervals: [1],
  source: "x",
});
const caution = (rule: string, severity: "note" | "caution" | "stop") =>
  ({
    rule,
    severity,
    seal: rule,
    text: `About ${rule}.`,
    cure: "Rest.",
    source: "y",
    at_s: null,
  }) as Schemas["Caution"];

function sheet(cautions: Schemas["Caution"][], onLight = vi.fn(), reading: object | null = {}) {
  const evaluation = {
    kit: { bring: ["16 oz gloves", "rope"], changes: 2, needs_s: 60, short_s: 20 },
    work_s: 160,
    rest_s: 80,
    volume: { limbs: {}, levels: {}, strikes: 0, left_share: null, counted: 0, open: 0, defences: 0, steps: 0 },
    reading: reading && {
      figures: { kcal: { value: 60, low: 50, high: 70 } },
      verdict: {
        target: "skill",
        trains_best: "aerobic-base",
        strokes: 2,
        grade: "Off target",
        sentence: "This is not yet skill.",
        reasons: [reason("fade", false), reason("efforts", true)],
      },
      cautions,
      week: {},
      efforts: Array.from({ length: 16 }),
      exhausted_at_s: 628,
      fade_onset: { bout: 3, earliest: 2, latest: 5, probability: 1 },
      fails: { bout: 11, earliest: 10, latest: 14, probability: 1 },
    },
  } as unknown as Schemas["Evaluation"];
  const targets = [
    { id: "skill", name: "skill, fresh", meaning: "" },
    { id: "aerobic-base", name: "aerobic base", meaning: "" },
  ] as Schemas["TargetOut"][];
  return show(
    <MemoryRouter>
      <VerdictSheet evaluation={evaluation} targets={targets} onLight={onLight} wbgt={null} onWbgt={vi.fn()} somebody />
    </MemoryRouter>,
  );
}

describe("the verdict sheet", () => {
  it("is a sentence with its grade, and says what the session fits best instead", () => {
    const said = sheet([]).textContent;
    for (const words of [
      "Off target",
      "2 of 5 for skill, fresh",
      "This is not yet skill.",
      "It fits aerobic base best",
      "Fails in effort 11 of 16; 10 to 14.",
    ]) {
      expect(said).toContain(words);
    }
  });

  it("tells what falls short from what is met by a word, not by colour", () => {
    const [short, met] = sheet([]).querySelectorAll("ul button");
    expect(short?.textContent).toContain("Short");
    expect(met?.textContent).toContain("Met");
  });

  it("points at the intervals of a reason that has the focus", () => {
    const onLight = vi.fn();
    const button = sheet([], onLight).querySelector("ul button") as HTMLButtonElement;
    act(() => button.focus());
    expect(onLight).toHaveBeenLastCalledWith("fade");
    act(() => button.blur());
    expect(onLight).toHaveBeenLastCalledWith(null);
  });

  it("gives every caution its level in a word, with its cure", () => {
    const said = sheet([caution("heat", "stop"), caution("warm-up", "caution"), caution("fade", "note")]).textContent;
    for (const words of ["Stop. About heat. Rest.", "Caution. About warm-up.", "Note. About fade."]) {
      expect(said).toContain(words);
    }
  });

  it("says that no rule speaks, and that the coach's own still do", () => {
    expect(sheet([]).textContent).toContain("Clear No rule of this tool speaks. Yours still do.");
  });

  it("asks for work where there is none to judge", () => {
    expect(sheet([], vi.fn(), null).textContent).toContain("Give a part an effort");
  });

  it("sums what to bring, and says where the pauses are too short to change it", () => {
    const kit = sheet([]).querySelector("[aria-label=Kit]");
    expect(kit?.textContent).toContain("To bring: 16 oz gloves, rope.");
    expect(kit?.textContent).toContain("2 changes, about 1:00, 0:20 more than the pauses give.");
  });

  it("never leaves out the signs to stop at", () => {
    expect(sheet([]).textContent).toMatch(/Chest pain, dizziness, .* stop, and see a physician/);
  });
});

describe("the heat field", () => {
  it("hands on a temperature, and nothing where it is emptied", () => {
    const onWbgt = vi.fn();
    const input = show(<Heat wbgt={26} onWbgt={onWbgt} />).querySelector("input") as HTMLInputElement;
    expect(input.value).toBe("26");
    type(input, "28,5");
    expect(onWbgt).toHaveBeenLastCalledWith(28.5);
    type(input, "");
    expect(onWbgt).toHaveBeenLastCalledWith(null);
  });

  it("says what is possible where it is no temperature, and hands on nothing", () => {
    const onWbgt = vi.fn();
    const place = show(<Heat wbgt={null} onWbgt={onWbgt} />);
    type(place.querySelector("input") as HTMLInputElement, "hot");
    expect(place.querySelector("[role=alert]")?.textContent).toContain("from -20 to 60");
    expect(onWbgt).not.toHaveBeenCalled();
  });
});
