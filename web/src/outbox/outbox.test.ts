import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { forgetJournal, journalOf, note, sendJournal } from "./journal";
import { flush, send, waiting } from "./outbox";
import { shelves } from "./store";

const log = (key: string, rpe: number) => ({ key, path: `/api/runs/${key}/log`, body: { rpe }, title: key });
const answers = (status: number, body: object = {}) =>
  vi.fn(async () => new Response(JSON.stringify(body), { status })) as unknown as typeof fetch;

describe("the outbox", () => {
  beforeEach(async () => {
    await (await shelves()).clear("outbox");
    await (await shelves()).clear("journal");
  });
  afterEach(() => vi.unstubAllGlobals());

  it("keeps what the network did not take, and sends it once when it is back", async () => {
    vi.stubGlobal("fetch", vi.fn().mockRejectedValue(new TypeError("no network")));
    expect(await send(log("a", 7))).toEqual({ kind: "waiting" });
    expect((await waiting()).map((item) => item.key)).toEqual(["a"]);
    const fetched = answers(200);
    vi.stubGlobal("fetch", fetched);
    await Promise.all([flush(), flush()]);
    expect(fetched).toHaveBeenCalledTimes(1);
    expect(await waiting()).toEqual([]);
  });

  it("lets a later one take the place of the same thing that waits", async () => {
    vi.stubGlobal("fetch", answers(503));
    await send(log("a", 7));
    await send(log("a", 9));
    const waits = await waiting();
    expect(waits).toHaveLength(1);
    expect(waits[0]?.body).toEqual({ rpe: 9 });
  });

  it("says why something is refused, and does not send it for ever", async () => {
    vi.stubGlobal("fetch", answers(422, { detail: [{ msg: "The plan has 8 efforts." }] }));
    expect(await send(log("a", 7))).toEqual({ kind: "refused", message: "The plan has 8 efforts." });
    expect(await waiting()).toEqual([]);
  });

  it("waits where the coach is signed out, and does not throw the thing away", async () => {
    vi.stubGlobal("fetch", answers(401));
    expect(await send(log("a", 7))).toEqual({ kind: "waiting" });
    expect(await waiting()).toHaveLength(1);
  });

  it("sends the journal of a run whole and in order, and of that run alone", async () => {
    const sent: string[] = [];
    vi.stubGlobal("fetch", async (_path: string, init: RequestInit) => {
      sent.push(String(init.body));
      return new Response("{}");
    });
    await note({ runId: "r1", kind: "start", at_s: -10 });
    await note({ runId: "r2", kind: "start", at_s: -10 });
    await note({ runId: "r1", kind: "skip", at_s: 4.2, more: { to_s: 30 } });
    expect(await sendJournal("r1", 3, "Bursts")).toEqual({ kind: "sent" });
    const { session_id, events } = JSON.parse(sent[0] ?? "{}");
    expect(session_id).toBe(3);
    expect(events.map((event: { kind: string }) => event.kind)).toEqual(["start", "skip"]);
    await forgetJournal("r1");
    expect(await journalOf("r1")).toEqual([]);
    expect(await journalOf("r2")).toHaveLength(1);
  });
});
