import type { Draft } from "./session/draft";

/** What another page brings to the day, to be planned there. */
export interface ToPlan {
  title: string;
  /** The session of the library it is, or was changed from. */
  sessionId: number;
  /** As it was changed: saved as a session of its own first. None where it stays as it is. */
  changed: Pick<Draft, "document" | "target"> | null;
  people: number[];
}
