/** Ties the audio clock to the page's clock, so that a sound can be planned for a moment of the page's time. */

/**
 * The audio clock is read in steps of a buffer, so a reading is late by up to one: of so many the freshest is taken. Not
 * of more: where the audio device falls behind, older readings say nothing any more.
 */
const KEPT = 6;
/** Parted by more than this, the audio clock has stood. */
const PARTED_S = 0.1;
/** Two readings in a row that are later by so much than a buffer can make them: the audio device has fallen behind. */
const FELL_BEHIND_S = 0.005;
/** A buffer, where the browser does not say how long its own is. */
const BUFFER_S = 0.025;
/** Both clocks are read within this, or the page was interrupted between. */
const AT_ONCE_MS = 2;
const TRIES = 4;

export class Tie {
  private readings: number[] = [];

  constructor(private readonly now: () => number) {}

  /** Read both clocks at once. */
  read(context: { readonly currentTime: number; readonly baseLatency?: number }): void {
    let best = { gap: Number.POSITIVE_INFINITY, offset: 0 };
    for (let tried = 0; tried < TRIES && best.gap > AT_ONCE_MS; tried++) {
      const before = this.now();
      const audio_s = context.currentTime;
      const gap = this.now() - before;
      if (gap < best.gap) best = { gap, offset: audio_s - (before + gap / 2) / 1000 };
    }
    if (this.readings.length > 0 && Math.abs(best.offset - this.offset) > PARTED_S) this.readings = [];
    this.readings.push(best.offset);
    if (this.readings.length > KEPT) this.readings.shift();
    const newest = this.readings.slice(-2);
    const late_s = (context.baseLatency ?? BUFFER_S) + FELL_BEHIND_S;
    if (newest.length === 2 && Math.max(...newest) < this.offset - late_s) this.readings = newest;
  }

  /** Audio time at a moment of the page's clock [s]. */
  audioAt(moment_ms: number): number {
    return moment_ms / 1000 + this.offset;
  }

  private get offset(): number {
    return this.readings.length > 0 ? Math.max(...this.readings) : 0;
  }
}
