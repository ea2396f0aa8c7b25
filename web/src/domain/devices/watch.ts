/** Watches everything that measures the people of a run: what they tell last, and all they have told. */

import { rounded } from "../rounded";
import type { Source, State } from "./source";

/** What is known of somebody's heart just now. */
export interface Heart {
  bpm: number | null;
  state: State;
  /** When the last reading came [ms]. */
  heard_ms: number;
}

/** What was told of somebody and not yet kept. */
export interface Fresh {
  /** Session time [s] and heart rate [bpm]. */
  heart: [number, number][];
  /** Session time [s] of every strike. */
  strikes: number[];
}

interface Hears {
  strike: (place: number) => void;
  /** A strap has found the heart, or lost it. */
  strap: (place: number, state: State) => void;
  /** Something to be shown anew. */
  changed: () => void;
  keep: (place: number, fresh: Fresh) => void;
}

/** A strap that is silent for so long has lost the heart. */
export const SILENT_MS = 5000;

export class Watch {
  private hearts = new Map<number, Heart>();
  private counts = new Map<number, number>();
  private fresh = new Map<number, Fresh>();
  private sources = new Map<string, Source>();

  constructor(
    /** Where the session stands [s]; null while its clock is held: then nothing is written down. */
    private readonly at_s: () => number | null,
    private readonly hears: Hears,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** Of the one at a place; null where no strap was put on. */
  heart(place: number): Heart | null {
    return this.hearts.get(place) ?? null;
  }

  strikes(place: number): number {
    return this.counts.get(place) ?? 0;
  }

  /** Strikes that had been noticed before the page was loaded anew: the count goes on from there. */
  remember(place: number, strikes: number): void {
    if (strikes === 0) return;
    this.counts.set(place, this.strikes(place) + strikes);
    this.hears.changed();
  }

  /** Put a strap on somebody, in place of another. Raises what the strap raises. */
  async strap(place: number, source: Source): Promise<void> {
    this.replace(`strap ${place}`, source);
    this.hearts.set(place, { bpm: null, state: "looking", heard_ms: this.now() });
    try {
      await source.start({
        heart: (bpm) => this.beat(place, bpm),
        state: (state) => this.become(place, state),
      });
    } catch (error) {
      this.become(place, "lost");
      throw error;
    }
  }

  async sensor(place: number, source: Source): Promise<void> {
    this.replace(`sensor ${place}`, source);
    await source.start({ strike: () => this.struck(place), state: () => {} });
  }

  /** Somebody wears a strap that is still to be found: until then it is lost. */
  expect(place: number): void {
    this.replace(`strap ${place}`, null);
    this.hearts.set(place, { bpm: null, state: "lost", heard_ms: this.now() });
    this.hears.changed();
  }

  takeOff(place: number): void {
    this.replace(`strap ${place}`, null);
    this.hearts.delete(place);
    this.hears.changed();
  }

  noSensor(place: number): void {
    this.replace(`sensor ${place}`, null);
  }

  /** Call it every second: whoever has been silent for too long is lost. */
  look(): void {
    for (const [place, heart] of this.hearts) {
      if (heart.state === "on" && this.now() - heart.heard_ms > SILENT_MS) this.become(place, "lost");
    }
  }

  /** Hand over what was told since the last time. */
  write(keep: Hears["keep"] = this.hears.keep): void {
    for (const [place, fresh] of this.fresh) keep(place, fresh);
    this.fresh.clear();
  }

  stop(): void {
    for (const source of this.sources.values()) source.stop();
    this.sources.clear();
    this.write();
  }

  private replace(name: string, source: Source | null): void {
    this.sources.get(name)?.stop();
    if (source) this.sources.set(name, source);
    else this.sources.delete(name);
  }

  private become(place: number, state: State): void {
    const heart = this.hearts.get(place);
    if (!heart || heart.state === state) return;
    this.hearts.set(place, { ...heart, state });
    this.hears.strap(place, state);
    this.hears.changed();
  }

  private beat(place: number, bpm: number): void {
    if (!this.hearts.has(place)) return;
    this.become(place, "on");
    this.hearts.set(place, { bpm, state: "on", heard_ms: this.now() });
    const at = this.at_s();
    if (at !== null && at >= 0) this.of(place).heart.push([rounded(1, at), Math.round(bpm)]);
    this.hears.changed();
  }

  private struck(place: number): void {
    const at = this.at_s();
    if (at === null || at < 0) return;
    this.counts.set(place, this.strikes(place) + 1);
    this.of(place).strikes.push(rounded(2, at));
    this.hears.strike(place);
    this.hears.changed();
  }

  private of(place: number): Fresh {
    const known = this.fresh.get(place) ?? { heart: [], strikes: [] };
    this.fresh.set(place, known);
    return known;
  }
}
