import type { Schemas } from "../../api/client";
import type { Piece } from "../../domain/clock/crew";
import { timed } from "../../domain/clock/run";
import type { View } from "../../domain/clock/view";
import { Clappers } from "./marks";
import { calledStroke, Showing } from "./Showing";
import { doneIn, dose } from "./told";

type Plan = Schemas["RunPlan"];

interface AheadProps {
  plan: Plan;
  now: View<Piece>;
  /** Which beat of its interval it is, where a pulse is wanted. */
  beat: number | null;
  compact?: boolean;
  at: number;
}

/** No clapper is struck: of what the clock does not end nobody knows the last three seconds. */
const UNSTRUCK_S = 9;

interface Row {
  key: string;
  word: string;
  figure: string;
  here: boolean;
}

/** A combination in so many rows at most; of a long one, several strikes stand in a row. */
const ROWS = 4;
/** A letter is less than half as wide as it is high, and a row has its figure too: so much of the width, by letters. */
const LETTERS_CQW = 165;

/**
 * The combination, spelled out, with the strike that is on the beat. One that grows stands in its pieces, the new one
 * marked.
 */
export function calledRows(calls: readonly string[], beat: number | null, pieces: readonly number[] = []): Row[] {
  if (pieces.length > 1) return grownRows(calls, pieces);
  const each = Math.ceil(calls.length / ROWS);
  const struck = beat === null ? -1 : beat % calls.length;
  return Array.from({ length: Math.ceil(calls.length / each) }, (_, row) => {
    const from = row * each;
    const own = calls.slice(from, from + each);
    return {
      key: `called ${from}`,
      word: own.join(", "),
      figure: own.length > 1 ? `${from + 1} to ${from + own.length}` : String(from + 1),
      here: from <= struck && struck < from + own.length,
    };
  });
}

function grownRows(calls: readonly string[], pieces: readonly number[]): Row[] {
  let from = 0;
  const rows = pieces.map((length, piece): Row => {
    const own = calls.slice(from, from + length);
    from += length;
    const last = piece === pieces.length - 1;
    return { key: `piece ${piece}`, word: own.join(", "), figure: last ? "new" : String(piece + 1), here: last };
  });
  if (rows.length <= ROWS) return rows;
  // Of many pieces the last ones have rows of their own, and those before them share the first.
  const before = rows.slice(0, rows.length - ROWS + 1);
  const word = before.map((row) => row.word).join("; ");
  return [{ key: "before", word, figure: `1 to ${before.length}`, here: false }, ...rows.slice(before.length)];
}

/** What is struck, or what is done and comes next: beside the digits in the hall, below them on a phone. */
export function Ahead({ plan, now, beat, compact, at }: AheadProps) {
  const showing = now.piece?.tempo === "show" && now.phase === "rest" ? now.piece : null;
  // In a pause the coming combination stands there, so that nobody stands and thinks when the bell goes.
  const shown = now.phase === "work" ? now.piece : (now.next ?? now.piece);
  const called = shown?.calls ?? [];
  const from = Math.max(0, now.index);
  const rows = called.length
    ? calledRows(called, now.phase === "work" ? beat : null, shown?.pieces)
    : plan.timeline.slice(from, from + (compact ? 3 : ROWS)).map(
        (piece, row): Row => ({
          key: `piece ${piece.start_s}`,
          word: doneIn(piece),
          figure: dose(piece),
          here: row === 0 && now.index >= 0,
        }),
      );
  const pace = called.length > 0 && now.phase === "work" && shown ? shown.pulse_per_min : 0;
  if (showing) {
    return (
      <span
        className={compact ? "mx-5 block pt-1 wide:hidden" : "mr-12 hidden self-center wide:block"}
        data-testid="shown"
      >
        <Showing piece={showing} now={calledStroke(plan.calls, showing, at)} />
      </span>
    );
  }
  const head = pace > 0 ? `${Math.round(pace)} strikes a minute` : called.length > 0 ? "Ready with" : null;
  return (
    <span
      className={`[container-type:inline-size] ${compact ? "mx-5 block pt-1 wide:hidden" : "mr-12 hidden self-start pt-6 wide:block low:pt-0"}`}
      data-testid={called.length > 0 ? "call" : undefined}
    >
      <span className="flex items-center justify-between gap-3 border-b border-[var(--rule-2)] pb-1 text-[22px] font-medium wide:text-[4vh]">
        <span className="truncate leading-[1.2]">
          {head ?? plan.part_names[now.piece?.part ?? now.next?.part ?? 0]}
        </span>
        <Clappers left_s={now.piece && timed(now.piece) ? now.left_s : UNSTRUCK_S} />
      </span>
      {rows.map((row) => (
        <span
          key={row.key}
          className="flex h-[42px] items-center justify-between gap-3 border-b border-[var(--rule-2)] px-3 leading-none font-semibold whitespace-nowrap wide:h-[10.25vh] wide:px-5 low:h-[34px] low:nth-[n+5]:hidden"
          style={{
            fontSize: `min(${compact ? "32px" : "7.75vh"}, ${LETTERS_CQW / row.word.length}cqw)`,
            ...(row.here ? { background: "var(--ink)", color: "var(--paper)" } : {}),
          }}
        >
          <span className="inline-block first-letter:uppercase">{row.word}</span>
          <span className={row.here ? "" : "opacity-70"}>{row.figure}</span>
        </span>
      ))}
    </span>
  );
}
