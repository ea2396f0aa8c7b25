/** The one small interface of everything that measures somebody on the floor. */

export type State = "looking" | "on" | "lost";

export interface Told {
  /** Heart rate [bpm]. */
  heart?: (bpm: number) => void;
  /** One strike. */
  strike?: () => void;
  state: (state: State) => void;
}

export interface Source {
  /** Begin to tell. What needs a permission is asked for here, so call it from a touch or a key. */
  start(told: Told): Promise<void>;
  stop(): void;
}
