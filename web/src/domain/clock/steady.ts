/** Now, on a clock that a change of the device's time does not move and that a sleep of the device does not stop. */

/** Smaller differences are corrections of the device's time, which this clock need not follow. */
const JUMP_MS = 1500;
const LOOK_EVERY_MS = 1000;

export class Steady {
  private slept_ms = 0;
  private offset_ms: number;

  constructor(
    /** Goes on evenly; stands while the device sleeps [ms]. */
    private readonly even = () => performance.timeOrigin + performance.now(),
    /** The device's own time [epoch ms]. */
    private readonly wall = () => Date.now(),
  ) {
    this.offset_ms = this.wall() - this.even();
  }

  now(): number {
    return this.even() + this.slept_ms;
  }

  /** What the device's time is ahead of this clock. */
  get ahead_ms(): number {
    return this.offset_ms - this.slept_ms;
  }

  /**
   * Compare the two clocks. Where they have parted, either the device's time was changed, and this clock does not
   * follow; or the device has slept, and it does. Time is never slept backwards.
   */
  look(mayHaveSlept: boolean): boolean {
    const parted = this.wall() - this.even() - this.offset_ms;
    if (Math.abs(parted) < JUMP_MS) return false;
    if (parted > 0 && mayHaveSlept) this.slept_ms += parted;
    this.offset_ms += parted;
    return true;
  }
}

export const steady = new Steady();
export const nowMs = (): number => steady.now();

const listeners = new Set<() => void>();
const wakeful = { lock: false, hidden: false };

/** Hears when the device has slept or its time was changed. */
export function onJump(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Whether the screen is kept awake: then the device does not sleep while the page is shown. */
export function keptAwake(held: boolean): void {
  wakeful.lock = held;
}

/** From now on the two clocks are compared every second, and whenever the page is shown again. */
export function watchTheClock(): () => void {
  const look = () => {
    const jumped = steady.look(wakeful.hidden || !wakeful.lock);
    wakeful.hidden = document.hidden;
    if (jumped) for (const listener of listeners) listener();
  };
  const timer = setInterval(look, LOOK_EVERY_MS);
  const seen = () => {
    if (document.hidden) wakeful.hidden = true;
    else look();
  };
  document.addEventListener("visibilitychange", seen);
  window.addEventListener("focus", look);
  return () => {
    clearInterval(timer);
    document.removeEventListener("visibilitychange", seen);
    window.removeEventListener("focus", look);
  };
}
