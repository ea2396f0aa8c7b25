/** Ties the audio clock to the page's clock, so that a sound can be planned for a moment of the page's time. */

/**
 * The audio clock is read in steps of a buffer, so a reading is late by up to one: of so many the freshest is taken. Not
 * of more: where the audio device falls behind, older readings say nothing any more.
 */
const KEPT = 6;
/** Parted by more than this, the audio clock has stood. */
const PARTED_S = 0.1;
/** Both clocks are read within this, or the page was interrupted between. */
const AT_ONCE_MS = 2;
const TRIES = 4;

export class Tie {
  private readings: number[] = [];

  constructor(private readonly now: () => number) {}

  /** Read both clocks at once. */
  read(context: { readonly currentTime: number }): void {
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
  }

  /** Audio time at a moment of the page's clock [s]. */
  audioAt(moment_ms: number): number {
    return moment_ms / 1000 + this.offset;
  }

  private get offset(): number {
    return this.readings.length > 0 ? Math.max(...this.readings) : 0;
  }
}
