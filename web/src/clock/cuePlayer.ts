/** Plays a schedule of sounds on the audio clock, a little ahead, so that a busy page does not move a bell. */

import { type CueKind, soundOf } from "./sounds";

export interface Cue {
  at_s: number;
  kind: CueKind;
}

const LOOK_AHEAD_S = 2.5;
const TICK_MS = 250;
/** A cue missed by more than this stays silent. */
const LATE_S = 0.05;
/** The two clocks are tied together anew only when they have parted by more than this: readings jitter. */
const PARTED_S = 0.08;

export class CuePlayer {
  private context: AudioContext | null = null;
  private buffers = new Map<CueKind, AudioBuffer>();
  private planned = new Map<Cue, AudioBufferSourceNode>();
  private timer: ReturnType<typeof setInterval> | null = null;
  private gain: GainNode | null = null;
  private muted = false;
  /** Audio time at session time zero. */
  private origin: number | null = null;

  constructor(
    private readonly cues: readonly Cue[],
    private readonly at_s: () => number | null,
  ) {}

  /** Whether sound can be heard: browsers hold it back until a key or a touch. */
  get audible(): boolean {
    return this.context?.state === "running";
  }

  /** Call from a key press or a touch. */
  async wake(): Promise<void> {
    if (!this.context) {
      this.context = new AudioContext();
      this.gain = this.context.createGain();
      this.gain.connect(this.context.destination);
      this.mute(this.muted);
    }
    if (this.context.state !== "running") await this.context.resume();
    this.timer ??= setInterval(() => this.tick(), TICK_MS);
    this.replan();
  }

  mute(muted: boolean): void {
    this.muted = muted;
    this.gain?.gain.setValueAtTime(muted ? 0 : 1, this.context?.currentTime ?? 0);
  }

  /** The clock was held or moved: forget what was planned and plan again. */
  replan(): void {
    for (const source of this.planned.values()) source.stop();
    this.planned.clear();
    this.origin = null;
    this.tick();
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    void this.context?.close();
    this.context = null;
  }

  private tick(): void {
    const context = this.context;
    const at = this.at_s();
    if (!context || at === null || context.state !== "running") return;
    const seen = context.currentTime - at;
    if (this.origin === null || Math.abs(seen - this.origin) > PARTED_S) this.origin = seen;
    for (const cue of this.cues) {
      const ahead = cue.at_s - at;
      if (ahead > LOOK_AHEAD_S) break;
      if (ahead < -LATE_S || this.planned.has(cue)) continue;
      const source = context.createBufferSource();
      source.buffer = this.buffer(context, cue.kind);
      source.connect(this.gain ?? context.destination);
      source.start(Math.max(context.currentTime, this.origin + cue.at_s));
      this.planned.set(cue, source);
    }
  }

  private buffer(context: AudioContext, kind: CueKind): AudioBuffer {
    const known = this.buffers.get(kind);
    if (known) return known;
    const samples = soundOf(kind, context.sampleRate);
    const buffer = context.createBuffer(1, samples.length, context.sampleRate);
    buffer.copyToChannel(samples, 0);
    this.buffers.set(kind, buffer);
    return buffer;
  }
}
