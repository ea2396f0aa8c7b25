// @vitest-environment jsdom

import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type Cue, CuePlayer } from "./cuePlayer";
import { soundOf } from "./sounds";
import type { Voice } from "./voice";

/** An audio clock that the test moves by hand. */
class FakeContext {
  static last: FakeContext;
  state = "suspended";
  currentTime = 100;
  sampleRate = 8000;
  destination = {};
  started: number[] = [];
  stopped = 0;
  constructor() {
    FakeContext.last = this;
  }
  async resume() {
    this.state = "running";
  }
  async close() {
    this.state = "closed";
  }
  createGain() {
    return { connect: () => {}, gain: { setValueAtTime: vi.fn() } };
  }
  createBuffer(_channels: number, length: number) {
    return { length, copyToChannel: () => {} };
  }
  createBufferSource() {
    return {
      connect: () => {},
      start: (at: number) => this.started.push(at),
      stop: () => {
        this.stopped++;
      },
    };
  }
}

const cues: Cue[] = [
  { at_s: 0, kind: "bell" },
  { at_s: 1, kind: "clack" },
  { at_s: 60, kind: "end" },
];

const NOW = () => 0;

describe("cues on the audio clock", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("AudioContext", FakeContext);
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("plans each cue once, at its own time on the audio clock", async () => {
    let now = 0;
    const player = new CuePlayer(
      cues,
      () => 2000,
      () => now,
    );
    await player.wake();
    expect(FakeContext.last.started).toEqual([102, 103]);
    now = 1000;
    FakeContext.last.currentTime = 101;
    vi.advanceTimersByTime(1000);
    expect(FakeContext.last.started).toEqual([102, 103]);
    player.close();
  });

  it("plans nothing from where it is not known when the session gets there", async () => {
    let until = 1;
    const player = new CuePlayer(
      cues,
      () => 1000,
      NOW,
      [],
      null,
      () => until,
    );
    await player.wake();
    expect(FakeContext.last.started).toEqual([101]);
    until = Number.POSITIVE_INFINITY;
    player.replan();
    expect(FakeContext.last.started.slice(1)).toEqual([101, 102]);
    player.close();
  });

  it("stays closed where whoever started it leaves while it wakes", async () => {
    for (const kind of ["resumed", "refused"]) {
      vi.stubGlobal(
        "AudioContext",
        class extends FakeContext {
          override async resume() {
            if (kind === "refused") throw new Error("the context is closed");
            await super.resume();
          }
        },
      );
      const player = new CuePlayer(cues, () => 2000, NOW);
      const waking = player.wake();
      player.close();
      await waking;
      expect([player.audible, vi.getTimerCount(), FakeContext.last.started]).toEqual([false, 0, []]);
    }
  });

  it("tells of a device that refuses to sound", async () => {
    vi.stubGlobal(
      "AudioContext",
      class extends FakeContext {
        override async resume() {
          throw new Error("no device");
        }
      },
    );
    const player = new CuePlayer(cues, () => 2000, NOW);
    await expect(player.wake()).rejects.toThrow("no device");
    player.close();
  });

  it("is silent while the clock is held, and plans anew when it goes on", async () => {
    let zero: number | null = 1000;
    let now = 0;
    const player = new CuePlayer(
      cues,
      () => zero,
      () => now,
    );
    await player.wake();
    zero = null;
    player.replan();
    expect(FakeContext.last.stopped).toBe(2);
    vi.advanceTimersByTime(5000);
    now = 100_000;
    zero = 99_500;
    FakeContext.last.currentTime = 200;
    player.replan();
    expect(FakeContext.last.started.at(-1)).toBe(200.5);
    player.close();
  });

  it("leaves out a cue that was missed", async () => {
    const player = new CuePlayer(cues, () => -5000, NOW);
    await player.wake();
    expect(FakeContext.last.started).toEqual([]);
    player.close();
  });
});

describe("calls on the audio clock", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("AudioContext", FakeContext);
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  const calls = [
    { at_s: 0.5, kind: "next", speech: "a" },
    { at_s: 1.5, kind: "half", speech: "b" },
    { at_s: 1.8, kind: "time", speech: null },
  ];
  const voice = { decode: async () => {}, get: (phrase: string) => ({ phrase }) } as unknown as Voice;

  it("are said at their own times, and what has no voice is left out", async () => {
    const player = new CuePlayer([], () => 0, NOW, calls, voice);
    await player.wake();
    expect(FakeContext.last.started).toEqual([100.5, 101.5]);
    player.close();
  });

  it("of a kind that is muted are not said, and come back when it is not", async () => {
    const player = new CuePlayer([], () => 0, NOW, calls, voice);
    player.hush(["half"]);
    await player.wake();
    expect(FakeContext.last.started).toEqual([100.5]);
    player.hush([]);
    expect(FakeContext.last.started.slice(-2)).toEqual([100.5, 101.5]);
    player.close();
  });
});

describe("our own sounds", () => {
  it.each(["bell", "change", "clack", "count", "end", "pulse"] as const)(
    "%s is loud, clean and ends in silence",
    (kind) => {
      const samples = soundOf(kind, 16_000);
      const loud = (part: Float32Array) => Math.max(...part.map(Math.abs));
      expect(loud(samples)).toBeGreaterThan(0.6);
      expect(loud(samples)).toBeLessThanOrEqual(1);
      expect(loud(samples.slice(-16))).toBeLessThan(0.12);
      expect(Math.abs(samples[0] ?? 1)).toBeLessThan(0.01);
    },
  );

  it("ends with three strokes of the bell, so that it is longer than one", () => {
    expect(soundOf("end", 8000).length).toBeGreaterThan(soundOf("bell", 8000).length);
  });
});
