// @vitest-environment jsdom

import { afterEach, describe, expect, it, vi } from "vitest";
import { Unreachable } from "./client";
import { streamed } from "./streamed";

interface Line {
  progress: number;
  error?: string | null;
}

/** An answer that comes in these pieces, wherever its lines are torn. */
function answer(pieces: string[], status = 200) {
  const bytes = new TextEncoder();
  const body = new ReadableStream({
    start(controller) {
      for (const piece of pieces) controller.enqueue(bytes.encode(piece));
      controller.close();
    },
  });
  vi.stubGlobal(
    "fetch",
    vi.fn(async () => new Response(body, { status, headers: { "Content-Type": "application/x-ndjson" } })),
  );
}

const run = (told: (line: Line) => void = () => {}) =>
  streamed<Line>("/api/classes/solve", {}, told, new AbortController().signal);

afterEach(() => vi.unstubAllGlobals());

describe("lines of JSON as they come", () => {
  it("are told one by one however they are torn, without the empty ones; the last is the answer", async () => {
    answer(['{"progress":0}\n\n{"pro', 'gress":0.5}\n', "\n\n", '{"progress":1}\n']);
    const told: number[] = [];
    expect(await run((line) => told.push(line.progress))).toEqual({ progress: 1 });
    expect(told).toEqual([0, 0.5, 1]);
  });

  it("that end in an error fail with its words; those that end in nothing are asked for again", async () => {
    answer(['{"progress":1,"error":"No room for a wave."}\n']);
    await expect(run()).rejects.toThrow("No room for a wave.");
    answer([]);
    await expect(run()).rejects.toThrow(Unreachable);
  });

  it("that are refused fail with the reason, and without a connection nothing is lost", async () => {
    answer([JSON.stringify({ detail: [{ type: "x", loc: ["body", "asked", "bags"], msg: "Too many." }] })], 422);
    await expect(run()).rejects.toThrow("Too many.");
    vi.stubGlobal(
      "fetch",
      vi.fn(async () => Promise.reject(new TypeError("failed"))),
    );
    await expect(run()).rejects.toThrow("Nothing is lost");
  });
});
