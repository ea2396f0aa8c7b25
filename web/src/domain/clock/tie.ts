/** Ties the audio clock to the page's clock, so that a sound can be planned for a moment of the page's time. */

/**
 * The audio clock is read in steps of a buffer, and a starved device reads late until it has caught up: no reading is
 * ever early. So the freshest of some seconds is taken, and those that come late move nothing.
 */
const KEPT_MS = 4000;
/** So many readings that agree with one another say where the clock is now. */
const AGREED = 6;
/** Readings further apart than a buffer and this do not agree. */
const BESIDES_S = 0.005;
/** A buffer, where the browser does not say how long its own is. */
const BUFFER_S = 0.025;
/** Later than any starved device reads: the audio clock has stood, such as while the device slept. */
const STOOD_S = 2;

interface Reading {
  at_ms: number;
  /** Audio time less the page's time, at the least [s]. */
  offset: number;
}

export class Tie {
  private readings: Reading[] = [];

  constructor(private readonly now: () => number) {}

  /** Read both clocks. The page's comes second, so that an interruption between them makes a reading late and no more. */
  read(context: { readonly currentTime: number; readonly baseLatency?: number }): void {
    const audio_s = context.currentTime;
    const at_ms = this.now();
    const reading = { at_ms, offset: audio_s - at_ms / 1000 };
    if (this.readings.length > 0 && reading.offset < this.offset - STOOD_S) this.readings = [];
    this.readings.push(reading);
    this.readings = this.readings.filter(
      (each, index, all) => index >= all.length - AGREED || at_ms - each.at_ms <= KEPT_MS,
    );
    const newest = this.readings.slice(-AGREED);
    const offsets = newest.map(({ offset }) => offset);
    const apart_s = (context.baseLatency || BUFFER_S) + BESIDES_S;
    const agree = newest.length === AGREED && Math.max(...offsets) - Math.min(...offsets) <= apart_s;
    // They agree on another place: the device has fallen behind, and will not catch up.
    if (agree && Math.max(...offsets) < this.offset - apart_s) this.readings = newest;
  }

  /** Audio time at a moment of the page's clock [s]. */
  audioAt(moment_ms: number): number {
    return moment_ms / 1000 + this.offset;
  }

  private get offset(): number {
    return this.readings.length > 0 ? Math.max(...this.readings.map(({ offset }) => offset)) : 0;
  }
}
