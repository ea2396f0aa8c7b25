/** Plays a schedule of sounds on the audio clock, a little ahead, so that a busy page does not move a bell. */

import { type CueKind, soundOf } from "./sounds";
import type { Voice } from "./voice";

export interface Cue {
  at_s: number;
  kind: CueKind;
}

/** Words, said at a moment. */
export interface Call {
  at_s: number;
  kind: string;
  /** The phrase that says it; null where there is no voice. */
  speech: string | null;
}

type Sounding = Cue | Call;

const LOOK_AHEAD_S = 2.5;
const TICK_MS = 250;
/** A cue missed by more than this stays silent. */
const LATE_S = 0.05;
/** The two clocks are tied together anew only when they have parted by more than this: readings jitter. */
const PARTED_S = 0.08;

export class CuePlayer {
  private context: AudioContext | null = null;
  private buffers = new Map<CueKind, AudioBuffer>();
  private planned = new Map<Sounding, AudioBufferSourceNode>();
  private readonly fixed: readonly Sounding[];
  private soundings: readonly Sounding[];
  private quiet: ReadonlySet<string> = new Set();
  private timer: ReturnType<typeof setInterval> | null = null;
  private gain: GainNode | null = null;
  private muted = false;
  /** Audio time at session time zero. */
  private origin: number | null = null;

  constructor(
    cues: readonly Cue[],
    private readonly at_s: () => number | null,
    calls: readonly Call[] = [],
    private readonly voice: Voice | null = null,
  ) {
    this.fixed = [...cues, ...calls];
    this.soundings = inOrder(this.fixed);
  }

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
    await this.voice?.decode(this.context);
    this.replan();
  }

  /** Kinds of calls that are not said from now on. */
  hush(kinds: readonly string[]): void {
    if (kinds.length === this.quiet.size && kinds.every((kind) => this.quiet.has(kind))) return;
    this.quiet = new Set(kinds);
    this.replan();
  }

  /** Other beats to strike to; none for no pulse. */
  beat(pulse: readonly Cue[]): void {
    this.soundings = inOrder([...this.fixed, ...pulse]);
    this.replan();
  }

  /** More phrases have come: what they say is planned too, and what sounds goes on. */
  async learn(): Promise<void> {
    if (!this.context) return;
    await this.voice?.decode(this.context);
    this.tick();
  }

  /** One sound at once, to try the loudness or to answer a key. */
  play(kind: CueKind): void {
    const { context } = this;
    if (context?.state !== "running") return;
    const source = context.createBufferSource();
    source.buffer = this.buffer(context, kind);
    source.connect(this.gain ?? context.destination);
    source.start(context.currentTime);
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
    for (const cue of this.soundings) {
      const ahead = cue.at_s - at;
      if (ahead > LOOK_AHEAD_S) break;
      if (ahead < -LATE_S || this.planned.has(cue) || this.quiet.has(cue.kind)) continue;
      const buffer = this.soundOf(context, cue);
      if (!buffer) continue;
      const source = context.createBufferSource();
      source.buffer = buffer;
      source.connect(this.gain ?? context.destination);
      source.start(Math.max(context.currentTime, this.origin + cue.at_s));
      this.planned.set(cue, source);
    }
  }

  private soundOf(context: AudioContext, sounding: Sounding): AudioBuffer | undefined {
    if (!("speech" in sounding)) return this.buffer(context, sounding.kind);
    return sounding.speech === null ? undefined : this.voice?.get(sounding.speech);
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

const inOrder = (soundings: readonly Sounding[]): Sounding[] => soundings.toSorted((a, b) => a.at_s - b.at_s);
