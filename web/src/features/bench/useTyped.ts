import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Refused, type Schemas, Unreachable } from "../../api/client";
import { read } from "../../api/queries";
import type { Part } from "../../domain/session/tree";
import { useSettled } from "../../ui/useSettled";
import type { Series } from "./useSeries";

/** What is said of a line while it is being typed. */
export interface Typing {
  refused: Refused | null;
  away: boolean;
  readAs: string | null;
  /** The parts that the lines name, where there are several: laid when the row is left. */
  several: Part[] | null;
  /** The line has not reached the session yet: it is being read, or cannot be. */
  waiting: boolean;
  /** A new row, with nothing typed yet. */
  blank: boolean;
  /** What is typed has no part yet. */
  fresh: boolean;
  /** The line is a ladder over weeks: what would be made of it. */
  series: Series | null;
}

/** The part in hand as the line has it: lines that name no part leave its name and purpose alone. */
function partOf(answer: Schemas["ShorthandOut"], current: Part): Part {
  const [part] = answer.parts;
  if (!part) return current;
  return answer.named ? part : { ...current, tree: part.tree };
}

/**
 * Reads what is typed into the row of the part `current`; `onRead` gets the part where it differs from that. A row that
 * is `fresh` has no part yet: its first line that reads is one.
 */
export function useTyped(
  typed: string | null,
  current: Part | null,
  fresh: boolean,
  onRead: (part: Part) => void,
): Omit<Typing, "series"> {
  const asked = useSettled(typed);
  const blank = fresh && typed?.trim() === "";
  const reading = useQuery({ ...read(asked ?? ""), enabled: asked !== null && !blank });
  const settled = typed !== null && asked === typed;
  const answer = settled ? reading.data : undefined;
  const several = answer && answer.parts.length > 1 ? answer.parts : null;
  const part = answer && current && !several ? partOf(answer, current) : null;
  const laid = part !== null && !fresh && JSON.stringify(part) === JSON.stringify(current);
  useEffect(() => {
    if (part && !laid) onRead(part);
  }, [part, laid, onRead]);
  return {
    refused: settled && reading.error instanceof Refused ? reading.error : null,
    away: settled && reading.failureReason instanceof Unreachable,
    readAs: answer?.text ?? null,
    several,
    waiting: typed !== null && !laid && !blank,
    blank,
    fresh,
  };
}
