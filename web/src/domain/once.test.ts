// @vitest-environment jsdom

import { beforeEach, expect, it } from "vitest";
import { once } from "./once";

beforeEach(() => localStorage.clear());

it("gives an act the same key until it is answered, and then another", async () => {
  const keys: string[] = [];
  const send = (lost: boolean) => (headers: { "Idempotency-Key": string }) => {
    keys.push(headers["Idempotency-Key"]);
    return lost ? Promise.reject(new Error("no answer")) : Promise.resolve("saved");
  };
  await expect(once(["save", { title: "a" }], send(true))).rejects.toThrow("no answer");
  await once(["save", { title: "b" }], send(false));
  expect(await once(["save", { title: "a" }], send(false))).toBe("saved");
  await once(["save", { title: "a" }], send(false));
  const [first, other, again, later] = keys;
  expect(again).toBe(first);
  expect(new Set([first, other, later]).size).toBe(3);
});
