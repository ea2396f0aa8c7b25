import { hashKey } from "@tanstack/react-query";
import { describe, expect, it } from "vitest";
import { hashed } from "./hashed";

describe("what a question is known by", () => {
  it("is what the library itself would say", () => {
    const part = { name: "Main", tree: { seconds: 20, tempo: "power", items: [1, null, "a,b", true] } };
    for (const key of [
      ["read", 'a "quoted" word'],
      ["evaluation", { target: "x", document: { parts: [part, part] } }],
    ]) {
      expect(hashed(key)).toBe(hashKey(key));
    }
  });

  it("is the same whatever order the keys stand in, and whether or not what is not there is named", () => {
    expect(hashed(["evaluation", { b: 1, a: [2], c: undefined }])).toBe(hashed(["evaluation", { a: [2], b: 1 }]));
  });

  it("is another where anything deep inside is another, though the rest is the same object", () => {
    const rest = { type: "interval", seconds: 10 };
    const of = (seconds: number) => ["evaluation", { document: { parts: [{ tree: { seconds } }, rest] } }];
    expect(hashed(of(20))).not.toBe(hashed(of(21)));
    expect(hashed(of(20))).toBe(hashed(of(20)));
  });
});
