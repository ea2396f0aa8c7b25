// @vitest-environment jsdom

import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type Cue, CuePlayer } from "./cuePlayer";
import { newRun, pause, position, type Run, resume } from "./run";

/**
 * An hour on the floor on a fast clock: the real run and the real player, with an audio clock that goes its own way, is
 * read in steps of a buffer, and a page that is busy now and then. Every sound is held against the moment it was due.
 */

const HOUR_S = 3600;
const BUFFER_S = 0.0213;
const STEP_MS = 100;
/** An ordinary sound card against an ordinary processor. */
const PARTS_PER_MILLION = 60;

interface Sounded {
  at: number;
  stopped: number | null;
}

class World {
  ms = 1_000_000;
  sounded: Sounded[] = [];
  /** When the audio clock fell behind the wall, and by how much: it slept, or its device missed a buffer. */
  slips: [ms: number, seconds: number][] = [];
  /** Until when the device is starved: it plays on, but what is read of its clock stands [ms]. */
  starved: { from: number; until: number } = { from: 0, until: 0 };
  readonly began = this.ms;

  trueAudio(ms: number): number {
    const behind = this.slips.reduce((sum, [at, seconds]) => sum + (at <= ms ? seconds : 0), 0);
    return 12 + ((ms - this.began) / 1000) * (1 + PARTS_PER_MILLION / 1e6) - behind;
  }
}

let world: World;

class FakeContext {
  state = "suspended";
  sampleRate = 8000;
  baseLatency = BUFFER_S;
  destination = {};
  get currentTime() {
    const { from, until } = world.starved;
    const read = world.ms >= from && world.ms < until ? from : world.ms;
    return Math.floor(world.trueAudio(read) / BUFFER_S) * BUFFER_S;
  }
  async resume() {
    this.state = "running";
  }
  async close() {}
  createGain() {
    return { connect: () => {}, gain: { setValueAtTime: () => {} } };
  }
  createBuffer(_channels: number, length: number) {
    return { length, copyToChannel: () => {} };
  }
  createBufferSource() {
    const sounded: Sounded = { at: 0, stopped: null };
    return {
      connect: () => {},
      start: (at: number) => {
        sounded.at = at;
        world.sounded.push(sounded);
      },
      stop: () => {
        sounded.stopped = world.trueAudio(world.ms);
      },
    };
  }
}

/** A bell each minute, a clack ten seconds before it, and three counts. */
const cues: Cue[] = [
  ...Array.from({ length: HOUR_S / 60 }, (_, minute) => [
    { at_s: 60 * minute, kind: "bell" as const },
    { at_s: 60 * minute + 50, kind: "clack" as const },
    ...[57, 58, 59].map((second) => ({ at_s: 60 * minute + second, kind: "count" as const })),
  ]).flat(),
  { at_s: HOUR_S, kind: "end" },
];

/** A pseudo-random row that is the same at each run. */
function row(seed: number) {
  let state = seed;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 2 ** 32;
    return state / 2 ** 32;
  };
}

interface Acts {
  /** Seconds the page is busy for, at a tick. */
  busy?: (random: () => number) => number;
  /** What is done to the run at a second. */
  act?: (run: Run, second: number) => Run;
  /** Milliseconds that the page stands for between its readings of the two clocks. */
  between?: (random: () => number) => number;
}

/** Runs the hour; gives each sound's error against the moment it was due on the wall [s]. */
async function anHour({ busy = () => 0, act = (run) => run, between = () => 0 }: Acts = {}) {
  const random = row(20_26);
  let run = resume(newRun("hour", 10), world.ms, HOUR_S);
  const zero = () => (run.anchorMs === null ? null : run.anchorMs - 1000 * run.anchor_s);
  const now = () => {
    world.ms += between(random);
    return world.ms;
  };
  const player = new CuePlayer(cues, zero, now);
  await player.wake();
  /** When session time zero was, after each act. */
  const due = new Map<number, number>();
  const note = () => {
    const from = position(run, world.ms);
    for (const cue of cues) {
      const at = zero();
      if (at !== null && cue.at_s >= from - 1e-9) due.set(cue.at_s, at + 1000 * cue.at_s);
      else if (at === null && cue.at_s >= from) due.delete(cue.at_s);
    }
  };
  note();
  let second = 0;
  while (position(run, world.ms) < HOUR_S + 2 && second < 2 * HOUR_S) {
    const late_s = busy(random);
    world.ms += STEP_MS + 1000 * late_s;
    vi.advanceTimersByTime(STEP_MS);
    const passed = Math.floor((world.ms - world.began) / 1000);
    if (passed !== second) {
      second = passed;
      const next = act(run, second);
      if (next !== run) {
        run = next;
        note();
        player.replan();
      }
    }
  }
  player.close();
  const heard = world.sounded.filter(({ at, stopped }) => stopped === null || stopped > at).map(({ at }) => at);
  const wanted = [...due.values()].map((ms) => world.trueAudio(ms));
  heard.sort((a, b) => a - b);
  wanted.sort((a, b) => a - b);
  return { heard, errors: heard.map((at, index) => at - (wanted[index] ?? Number.NaN)), count: wanted.length };
}

describe("an hour on the floor", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("AudioContext", FakeContext);
    world = new World();
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  const worst = (errors: number[]) => Math.max(...errors.map(Math.abs));

  it("sounds every bell once, within twenty milliseconds, though the two clocks part by a fifth of a second", async () => {
    const { heard, errors, count } = await anHour();
    expect(heard).toHaveLength(count);
    expect(count).toBe(cues.length);
    expect(worst(errors)).toBeLessThan(0.02);
    expect(world.trueAudio(world.ms) - 12 - (world.ms - world.began) / 1000).toBeGreaterThan(0.2);
  });

  it("drifts less than fifty milliseconds from the wall over the hour", async () => {
    const { errors } = await anHour();
    expect(Math.abs((errors.at(-1) ?? 1) - (errors[0] ?? 1))).toBeLessThan(0.05);
  });

  it("keeps its bells on a page that is busy for up to ten seconds", async () => {
    const { errors, heard } = await anHour({ busy: (random) => (random() < 0.05 ? 10 * random() : 0.05 * random()) });
    expect(heard).toHaveLength(cues.length);
    expect(worst(errors)).toBeLessThan(0.02);
  });

  it("keeps them over pauses", async () => {
    const { errors, heard, count } = await anHour({
      act: (run, second) => {
        if (second % 600 === 400) return pause(run, world.ms, HOUR_S);
        return second % 600 === 437 ? resume(run, world.ms, HOUR_S) : run;
      },
    });
    expect(heard).toHaveLength(count);
    expect(worst(errors)).toBeLessThan(0.02);
  });

  it("moves what is planned where the audio device falls behind, again and again", async () => {
    const { errors, heard } = await anHour({
      act: (run, second) => {
        if (second % 60 === 58) world.slips.push([world.ms, 0.035]);
        return run;
      },
    });
    expect(world.slips.length).toBeGreaterThan(50);
    expect(heard).toHaveLength(cues.length);
    expect(worst(errors)).toBeLessThan(0.02);
  });

  it("does not chase a device that is starved, and reads late by up to three quarters of a second", async () => {
    const spells = row(7);
    const { errors, heard } = await anHour({
      act: (run) => {
        if (spells() < 0.4) world.starved = { from: world.ms, until: world.ms + 750 * spells() };
        return run;
      },
    });
    expect(heard).toHaveLength(cues.length);
    expect(worst(errors)).toBeLessThan(0.02);
  });

  it("is not misled where the page stands between its readings of the two clocks", async () => {
    const { errors, heard } = await anHour({ between: (random) => (random() < 0.05 ? 300 * random() : 0) });
    expect(heard).toHaveLength(cues.length);
    expect(worst(errors)).toBeLessThan(0.02);
  });

  it("keeps what is planned as it is: each sound is planned once, but for the few that the clocks' parting moves", async () => {
    const spells = row(3);
    await anHour({
      act: (run) => {
        if (spells() < 0.4) world.starved = { from: world.ms, until: world.ms + 750 * spells() };
        return run;
      },
    });
    expect(world.sounded.length).toBeLessThan(1.5 * cues.length);
  });

  it("finds them again after the audio clock stood while the device slept", async () => {
    const slept_s = 90;
    let heardBefore = 0;
    const { errors } = await anHour({
      act: (run, second) => {
        if (second === 1003) {
          heardBefore = world.sounded.length;
          world.ms += 1000 * slept_s;
          world.slips.push([world.ms, slept_s]);
        }
        return run;
      },
    });
    expect(heardBefore).toBeGreaterThan(50);
    // What was due in the sleep was not heard; all that comes after is on time.
    expect(errors.length).toBeLessThan(cues.length);
    const after = world.sounded.filter(({ stopped }) => stopped === null).slice(-100);
    const due = cues.map(({ at_s }) => world.trueAudio(world.began + 10_000 + 1000 * at_s));
    const late = after.map(({ at }) => Math.min(...due.map((moment) => Math.abs(moment - at))));
    expect(worst(late)).toBeLessThan(0.02);
  });
});
