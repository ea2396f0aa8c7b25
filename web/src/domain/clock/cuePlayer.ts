/** Plays a schedule of sounds on the audio clock, a little ahead, so that a busy page does not move a bell. */

import { type CueKind, soundOf } from "./sounds";
import { Tie } from "./tie";
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

interface Planned {
  source: AudioBufferSourceNode;
  /** On the audio clock [s]. */
  at: number;
}

/** A sound that is planned is planned anew where the audio device has fallen behind by more than this. */
const FELL_BEHIND_S = 0.004;
/** It is too late to move a sound that begins so soon. */
const TOO_SOON_S = 0.03;
/** What is planned stays as it is: a page that is busy for so long moves no bell, and silences none. */
const LOOK_AHEAD_S = 20;
/** A page that nobody sees may be woken no more than once a minute. */
const HIDDEN_AHEAD_S = 70;
const TICK_MS = 100;
/** A cue missed by more than this stays silent. */
const LATE_S = 0.05;

export class CuePlayer {
  private context: AudioContext | null = null;
  private buffers = new Map<CueKind, AudioBuffer>();
  private planned = new Map<Sounding, Planned>();
  private readonly fixed: readonly Sounding[];
  private soundings: readonly Sounding[];
  private quiet: ReadonlySet<string> = new Set();
  private timer: ReturnType<typeof setInterval> | null = null;
  private gain: GainNode | null = null;
  private muted = false;
  private readonly tie: Tie;
  private readonly onSight = () => this.tick();

  constructor(
    cues: readonly Cue[],
    /** When session time zero is, on the page's clock [ms]; null while the session stands. */
    private readonly zero_ms: () => number | null,
    private readonly now: () => number,
    calls: readonly Call[] = [],
    private readonly voice: Voice | null = null,
    /** From here on nothing is planned: nobody knows when the session gets there [s]. */
    private readonly until_s: () => number = () => Number.POSITIVE_INFINITY,
  ) {
    this.fixed = [...cues, ...calls];
    this.soundings = inOrder(this.fixed);
    this.tie = new Tie(now);
  }

  /** Whether sound can be heard: browsers hold it back until a key or a touch. */
  get audible(): boolean {
    return this.context?.state === "running";
  }

  /** Call from a key press or a touch. Closed meanwhile, it stays closed. */
  async wake(): Promise<void> {
    if (!this.context) {
      this.context = new AudioContext();
      this.gain = this.context.createGain();
      this.gain.connect(this.context.destination);
      this.mute(this.muted);
    }
    const { context } = this;
    if (context.state !== "running") {
      await context.resume().catch((error: unknown) => {
        if (this.context === context) throw error;
      });
    }
    if (this.context !== context) return;
    if (this.timer === null) {
      this.timer = setInterval(() => this.tick(), TICK_MS);
      document.addEventListener("visibilitychange", this.onSight);
    }
    await this.voice?.decode(context);
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
    for (const { source } of this.planned.values()) source.stop();
    this.planned.clear();
    this.tick();
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    document.removeEventListener("visibilitychange", this.onSight);
    void this.context?.close();
    this.context = null;
  }

  private tick(): void {
    const context = this.context;
    if (context?.state !== "running") return;
    this.tie.read(context);
    const zero = this.zero_ms();
    if (zero === null) return;
    const here = (this.now() - zero) / 1000;
    const until_s = this.until_s();
    const furthest = document.hidden ? HIDDEN_AHEAD_S : LOOK_AHEAD_S;
    for (const cue of this.soundings) {
      const ahead = cue.at_s - here;
      if (ahead > furthest || cue.at_s >= until_s) break;
      if (ahead < -LATE_S || this.quiet.has(cue.kind)) continue;
      const due = this.tie.audioAt(zero + 1000 * cue.at_s);
      const before = this.planned.get(cue);
      if (before && !this.mayMove(context, before, due)) continue;
      const buffer = this.soundOf(context, cue);
      if (!buffer) continue;
      before?.source.stop();
      const source = context.createBufferSource();
      source.buffer = buffer;
      source.connect(this.gain ?? context.destination);
      const at = Math.max(context.currentTime, due);
      source.start(at);
      this.planned.set(cue, { source, at });
    }
  }

  /** The audio device has fallen behind since a sound was planned, and there is time to plan it anew. */
  private mayMove(context: AudioContext, { at }: Planned, due: number): boolean {
    const soonest = context.currentTime + TOO_SOON_S;
    return Math.abs(due - at) > FELL_BEHIND_S && at > soonest && due > soonest;
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
