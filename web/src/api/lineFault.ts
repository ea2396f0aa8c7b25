import type { Schemas } from "./client";

/** What the server says of a line that it cannot read. */
export interface LineFault {
  /** Where the fault is, from 1. */
  character: number;
  suggestion: string | null;
  example: string;
  /** What each word is, up to the fault. */
  spans?: Schemas["Span"][];
  /** Of how many weeks the line holds a ladder; 1 for none. */
  weeks?: number;
}

/** What is said of the line, where that is why something was refused. */
export function lineFault(error: unknown): LineFault | null {
  const faults = (error as { faults?: Schemas["Fault"][] } | null)?.faults;
  return (faults?.[0]?.ctx as LineFault | null | undefined) ?? null;
}
