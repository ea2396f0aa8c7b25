/** The house of the front end: imports point one way, and no feature knows another. */

import { describe, expect, it } from "vitest";

/** From the ground up: each may import what stands before it. `testing` may be imported by tests alone. */
const FLOORS = ["api", "domain", "ui", "charts", "features", "app"];
const FROM = /(?:from|import)\s*\(?\s*"(\.{1,2}\/[^"]+)"/g;

const sources = import.meta.glob("../**/*.{ts,tsx}", { query: "?raw", import: "default", eager: true }) as Record<
  string,
  string
>;

/** A path below `src`, from one that is relative to this file or to another. */
function placed(from: string, to: string): string[] {
  const steps = from.split("/").slice(0, -1);
  for (const step of to.split("/")) {
    if (step === "..") steps.pop();
    else if (step !== ".") steps.push(step);
  }
  return steps;
}

const imports = Object.entries(sources).flatMap(([file, text]) => {
  const here = placed("app/layers.test.ts", file);
  return [...text.matchAll(FROM)].map(([, to = ""]) => ({ here, there: placed(here.join("/"), to) }));
});

describe("the house", () => {
  it("was read", () => {
    expect(Object.keys(sources).length).toBeGreaterThan(150);
    expect(imports.length).toBeGreaterThan(400);
  });

  it("has only rooms that are on the plan", () => {
    const rooms = new Set(Object.keys(sources).map((file) => placed("app/layers.test.ts", file)[0]));
    expect([...rooms].toSorted()).toEqual([...FLOORS, "testing"].toSorted());
  });

  it("is entered from above only", () => {
    const climbs = imports.filter(({ here, there }) => FLOORS.indexOf(there[0] ?? "") > FLOORS.indexOf(here[0] ?? ""));
    const wrong = climbs.filter(({ here }) => !(here[0] === "testing" || here.at(-1)?.includes(".test.")));
    expect(wrong.map(({ here, there }) => `${here.join("/")} -> ${there.join("/")}`)).toEqual([]);
  });

  it("has features that do not know each other", () => {
    const across = imports.filter(
      ({ here, there }) => here[0] === "features" && there[0] === "features" && here[1] !== there[1],
    );
    expect(across.map(({ here, there }) => `${here.join("/")} -> ${there.join("/")}`)).toEqual([]);
  });

  it("asks anew through the one that lets go what is still on its way", () => {
    const straight = Object.entries(sources).filter(([, text]) => /\.(invalidate|refetch)Queries\(/.test(text));
    expect(straight.map(([file]) => file)).toEqual(["../api/askAnew.ts"]);
  });
});
