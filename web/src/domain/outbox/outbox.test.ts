// @vitest-environment jsdom

import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { keepRun, recallRunById } from "../clock/keptRun";
import { end, newRun, resume } from "../clock/run";
import { setOwner } from "../device/owner";
import { forgetJournal, journalOf, note, sendJournal } from "./journal";
import { again, flush, ofOthers, send, sendAll, throwAway, waiting } from "./outbox";
import { release, releaseWhatIsTaken } from "./release";
import { shelves } from "./store";
import { keepWritten, recallWritten } from "./written";

const MARIT = { coach: 1, club: 1 };
const ODD = { coach: 2, club: 2 };
const log = (runId: string, rpe: number, place = 0) => ({
  key: `log ${runId} ${place}`,
  path: `/api/runs/${runId}/log`,
  body: { rpe },
  title: runId,
  runId,
  entry: true,
});
const answers = (status: number, body: object = {}) =>
  vi.fn(async () => new Response(JSON.stringify(body), { status })) as unknown as typeof fetch;
/** Answers by what is asked for. */
const byPath = (statuses: Record<string, number>) =>
  vi.fn(async (path: string) => {
    const found = Object.entries(statuses).find(([part]) => path.includes(part));
    return new Response(JSON.stringify({ detail: "no" }), { status: found?.[1] ?? 200 });
  });
const plan = {
  session_id: 3,
  revision: 4,
  person_id: null,
  document: { title: "Bursts" },
  title: "Bursts",
  timeline: [],
  total_s: 60,
} as unknown as Schemas["RunPlan"];

describe("the outbox", () => {
  let stop = () => {};
  beforeEach(async () => {
    for (const shelf of ["outbox", "journal", "told"] as const) await (await shelves()).clear(shelf);
    localStorage.clear();
    setOwner(MARIT);
    stop = releaseWhatIsTaken();
  });
  afterEach(() => {
    stop();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("keeps what the network did not take, and sends it once when it is back", async () => {
    vi.stubGlobal("fetch", vi.fn().mockRejectedValue(new TypeError("no network")));
    expect(await send(log("a", 7))).toEqual({ kind: "waiting" });
    expect((await waiting()).map((item) => item.key)).toEqual(["log a 0"]);
    const fetched = answers(200);
    vi.stubGlobal("fetch", fetched);
    await Promise.all([flush(), flush()]);
    expect(fetched).toHaveBeenCalledTimes(1);
    expect(await waiting()).toEqual([]);
  });

  it("says sent of what another flush had sent already", async () => {
    const fetched = answers(200);
    vi.stubGlobal("fetch", fetched);
    const asked = send(log("a", 7));
    const other = flush();
    expect(await asked).toEqual({ kind: "sent" });
    await other;
    expect(fetched).toHaveBeenCalledTimes(1);
  });

  it("lets a later one take the place of the same thing that waits", async () => {
    vi.stubGlobal("fetch", answers(503));
    await send(log("a", 7));
    await send(log("a", 9));
    const waits = await waiting();
    expect(waits).toHaveLength(1);
    expect(waits[0]?.body).toEqual({ rpe: 9 });
  });

  it("keeps what is refused as a letter that came back, with its reason, and sends it no more by itself", async () => {
    const fetched = answers(422, { detail: [{ msg: "The plan has 8 efforts.", loc: ["body", "done_efforts"] }] });
    vi.stubGlobal("fetch", fetched);
    expect(await send(log("a", 7))).toEqual({ kind: "refused", message: "The plan has 8 efforts." });
    await flush();
    expect(fetched).toHaveBeenCalledTimes(1);
    const [letter] = await waiting();
    expect(letter?.refusal).toEqual({ status: 422, message: "The plan has 8 efforts.", field: "done_efforts" });
    expect(letter?.body).toEqual({ rpe: 7 });
  });

  it("sends a letter again as it is or changed, and throws it away only where somebody says so", async () => {
    vi.stubGlobal("fetch", answers(404, { detail: "No such person." }));
    await sendAll([log("a", 7), log("b", 8)]);
    const [first, second] = await waiting();
    vi.stubGlobal("fetch", answers(200));
    if (first) expect(await again(first, { rpe: 6 })).toEqual({ kind: "sent" });
    expect((await waiting()).map(({ key }) => key)).toEqual(["log b 0"]);
    if (second) await throwAway(second.key);
    expect(await waiting()).toEqual([]);
  });

  it("is not held up by one thing that the server fails with, and tries that again later and later", async () => {
    vi.useFakeTimers({ toFake: ["Date"], now: 1_000_000 });
    const fetched = byPath({ "runs/a": 500 });
    vi.stubGlobal("fetch", fetched);
    await sendAll([log("a", 7), log("b", 8)]);
    expect((await waiting()).map(({ key, tries }) => [key, tries])).toEqual([["log a 0", 1]]);
    await flush();
    expect(fetched, "not at once").toHaveBeenCalledTimes(2);
    vi.setSystemTime(1_000_000 + 15_000);
    await flush();
    vi.setSystemTime(1_000_000 + 30_000);
    await flush();
    expect(fetched, "twice as long after the second time").toHaveBeenCalledTimes(3);
    vi.setSystemTime(1_000_000 + 45_001);
    await flush();
    expect(fetched).toHaveBeenCalledTimes(4);
  });

  it("waits where the coach is signed out, and does not throw the thing away", async () => {
    vi.stubGlobal("fetch", answers(401));
    expect(await send(log("a", 7))).toEqual({ kind: "waiting" });
    expect((await waiting())[0]).toMatchObject({ refusal: null, tries: 0 });
  });

  it("sends a coach's things only for that coach, whoever signs in on the device meanwhile", async () => {
    vi.stubGlobal("fetch", answers(503));
    await send(log("a", 7));
    const fetched = answers(200);
    vi.stubGlobal("fetch", fetched);
    setOwner(ODD);
    expect(await waiting()).toEqual([]);
    expect(await ofOthers()).toBe(1);
    await flush();
    expect(fetched).not.toHaveBeenCalled();
    setOwner(MARIT);
    expect((await waiting()).map(({ key }) => key)).toEqual(["log a 0"]);
    expect(await ofOthers()).toBe(0);
  });

  it("sends the journal of a run whole, in order and with its plan, and of that run alone", async () => {
    const sent: string[] = [];
    vi.stubGlobal("fetch", async (_path: string, init: RequestInit) => {
      sent.push(String(init.body));
      return new Response("{}");
    });
    await note({ runId: "r1", kind: "start", at_s: -10 });
    await note({ runId: "r2", kind: "start", at_s: -10 });
    await note({ runId: "r1", kind: "skip", at_s: 4.2, more: { to_s: 30 } });
    expect(await sendJournal("r1", plan)).toEqual({ kind: "sent" });
    const { run, events } = JSON.parse(sent[0] ?? "{}");
    expect(run).toEqual({ session_id: 3, revision: 4, person_id: null, document: { title: "Bursts" } });
    expect(events.map((event: { kind: string }) => event.kind)).toEqual(["start", "skip"]);
    await forgetJournal("r1");
    expect(await journalOf("r1")).toEqual([]);
    expect(await journalOf("r2")).toHaveLength(1);
  });

  describe("and the run that a log is of", () => {
    const begin = async () => {
      keepRun({ plan, crew: [], run: end(resume(newRun("a", 10), 0, 60), 80_000, 60) });
      keepWritten("a", 1, { ...recallWritten("a", 1), note: "left side lazy" });
      await note({ runId: "a", kind: "start", at_s: -10 });
    };

    it("stay on the device until the server has taken the log", async () => {
      await begin();
      vi.stubGlobal("fetch", answers(503));
      await send(log("a", 7));
      expect(recallRunById("a")).not.toBeNull();
      expect(await journalOf("a")).toHaveLength(1);
      vi.stubGlobal("fetch", answers(200));
      const [item] = await waiting();
      if (item) await again(item);
      expect(recallRunById("a")).toBeNull();
      expect(await journalOf("a")).toEqual([]);
      expect(recallWritten("a", 1).note).toBe("");
    });

    it("stay while anybody's entry of it has come back", async () => {
      await begin();
      vi.stubGlobal(
        "fetch",
        vi.fn(
          async (_: string, { body }: RequestInit) =>
            new Response("{}", { status: String(body).includes("8") ? 422 : 200 }),
        ),
      );
      await sendAll([log("a", 7, 0), log("a", 8, 1)]);
      expect(recallRunById("a")).not.toBeNull();
      expect(recallWritten("a", 1).note).toBe("left side lazy");
      await throwAway("log a 1");
      expect(await release("a")).toBe(true);
      expect(recallRunById("a")).toBeNull();
    });

    it("stay as the journal alone is taken", async () => {
      await begin();
      vi.stubGlobal("fetch", answers(200));
      await sendJournal("a", plan);
      expect(recallRunById("a")).not.toBeNull();
    });
  });
});
