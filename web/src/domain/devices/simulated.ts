/** A simulated strap and strike sensor: they tell what the server's engine expects of this person at each second. */

import type { Source, Told } from "./source";

const EVERY_MS = 1000;
const STRIKES_EVERY_MS = 50;
/** The clock was moved and not played: nothing was struck. */
const MOVED_S = 2;

abstract class Simulated implements Source {
  private timer: ReturnType<typeof setInterval> | undefined;

  constructor(
    /** Where the session stands [s]; negative in the count-in. */
    protected readonly at_s: () => number,
    private readonly every_ms: number,
  ) {}

  async start(told: Told): Promise<void> {
    this.stop();
    told.state("looking");
    this.timer = setInterval(() => this.tell(told), this.every_ms);
  }

  stop(): void {
    clearInterval(this.timer);
  }

  protected abstract tell(told: Told): void;
}

export class SimulatedStrap extends Simulated {
  private found = false;

  constructor(
    private readonly heart: readonly (number | null)[],
    at_s: () => number,
  ) {
    super(at_s, EVERY_MS);
  }

  protected tell(told: Told): void {
    const second = Math.min(this.heart.length - 1, Math.max(0, Math.floor(this.at_s())));
    const bpm = this.heart[second] ?? null;
    told.state(bpm !== null ? "on" : this.found ? "lost" : "looking");
    if (bpm === null) return;
    this.found = true;
    told.heart?.(bpm);
  }
}

export class SimulatedSensor extends Simulated {
  private last: number | null = null;

  constructor(
    private readonly strikes: readonly number[],
    at_s: () => number,
  ) {
    super(at_s, STRIKES_EVERY_MS);
  }

  protected tell(told: Told): void {
    const at = this.at_s();
    told.state("on");
    if (this.last !== null && at > this.last && at - this.last < MOVED_S) {
      const from = this.last;
      for (const strike of this.strikes) if (strike > from && strike <= at) told.strike?.();
    }
    this.last = at;
  }
}
