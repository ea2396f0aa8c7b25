import { useQuery } from "@tanstack/react-query";
import type { CSSProperties, ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { vocabulary as vocabularyQuery } from "../../api/queries";
import type { Piece } from "../../domain/clock/crew";
import { isRunning, type Run, repsLeft } from "../../domain/clock/run";
import { type View, view } from "../../domain/clock/view";
import { clock } from "../../domain/time";
import { Clappers, RoundTally } from "./marks";

type Plan = Schemas["RunPlan"];

const FIELD_INVERTED = { "--paper": "#FBF8F1", "--ink": "#10141F" } as CSSProperties;

const PHASES = { ready: "READY", done: "DONE", rest: "REST", recover: "RECOVER" };
/** Shorter work keeps one field, so that the screen never flashes. */
const SHORTEST_LIT_S = 5;

export interface Shown {
  now: View<Piece>;
  started: boolean;
  held: boolean;
  /** Work inverts the whole screen: hall ink on the lightest sheet. */
  lit: boolean;
  /** Reps left, where they are counted. */
  counting: number | null;
  /** The phase as it stands on the screen, in capitals. */
  phase: string;
  wordOf: (piece: Piece | null) => string;
}

/** What a screen shows of a run at a moment. */
export function useShown(plan: Plan, run: Run, at: number): Shown {
  const words = useQuery(vocabularyQuery).data?.tempos;
  const wordOf = (piece: Piece | null) => words?.find((tempo) => tempo.id === piece?.tempo)?.word ?? piece?.tempo ?? "";
  const now = view<Piece>(plan.timeline, at, plan.count_in_s);
  const started = run.startedAt !== null;
  const held = started && !isRunning(run) && run.endedAtMs === null && now.phase !== "done";
  return {
    now,
    started,
    held,
    lit: now.phase === "work" && !held && (now.piece?.seconds ?? 0) >= SHORTEST_LIT_S,
    counting: now.piece?.reps ? repsLeft(run, now.piece) : null,
    phase: now.phase === "work" ? wordOf(now.piece).toUpperCase() : PHASES[now.phase],
    wordOf,
  };
}

/** The whole screen of a run, inverted while work is on. */
export function Hall({ shown, children }: { shown: Shown; children: ReactNode }) {
  return (
    <main
      data-theme={shown.lit ? "inkscore" : "nighthall"}
      data-phase={shown.now.phase}
      className="flex h-dvh flex-col overflow-hidden bg-[var(--paper)] font-[family-name:var(--font-clock)] text-[var(--ink)] select-none"
      style={shown.lit ? FIELD_INVERTED : undefined}
    >
      {children}
    </main>
  );
}

/** The phase and the round, over the digits; on a hall screen the phase may grow past what a desk has room for. */
export function Top({ shown, largest = "" }: { shown: Shown; largest?: string }) {
  const { now, held, phase } = shown;
  const long = phase.length > 8;
  return (
    <div className="flex items-baseline justify-between gap-4 px-5 pt-3 min-[900px]:px-12 min-[900px]:pt-4">
      <span className="leading-none font-bold" style={{ fontSize: `min(16vh, ${long ? 9 : 12}vw${largest})` }}>
        {held ? "HELD" : phase}
      </span>
      <Round now={now} tight={long} />
    </div>
  );
}

interface ComingProps {
  plan: Plan;
  shown: Shown;
  at: number;
  /** Whose turn comes, in pairs. */
  next: string;
}

/** What comes next, and the time that is left in all. */
export function Coming({ plan, shown, at, next }: ComingProps) {
  const { now, wordOf } = shown;
  const who = next ? `${next} ` : "";
  return (
    <div className="flex items-center justify-between gap-4 px-5 pt-2 text-[24px] min-[900px]:px-12 min-[900px]:pt-3 min-[900px]:text-[5vh]">
      <span className="font-semibold">
        {now.next
          ? `Next: ${who}${wordOf(now.next)} ${dose(now.next)}`
          : now.phase === "done"
            ? "All done"
            : "Last one"}
      </span>
      <span className="font-semibold">{clock(Math.ceil(plan.total_s - Math.max(0, at)))} left</span>
    </div>
  );
}

/** More rounds are told by their number alone. */
const MOST_TALLIED = 15;

function Round({ now, tight }: { now: View<Piece>; tight: boolean }) {
  if (!now.round) return <span />;
  const { turn, of: count } = now.round;
  const resting = now.phase === "rest" && turn < count && now.next?.rounds.some((next) => next.turn === turn + 1);
  return (
    <span
      className="flex items-baseline gap-[0.2em] leading-none font-semibold whitespace-nowrap"
      style={{ fontSize: `min(8vh, ${tight ? 4.6 : 6.5}vw, max(60px, 7.5vh))` }}
    >
      {now.set && (
        <span className="hidden opacity-70 min-[900px]:inline">
          Set {now.set.turn} of {now.set.of},
        </span>
      )}
      <span>{resting ? "Next round" : "Round"}</span>
      <b className="text-[1.700em]">{resting ? turn + 1 : turn}</b>
      <span>of</span>
      <b className="text-[1.700em]">{count}</b>
      {count <= MOST_TALLIED && (
        <span className="hidden self-center pl-[0.3em] min-[900px]:flex min-[900px]:gap-[0.35em]">
          {Array.from({ length: Math.ceil(count / 5) }, (_, group) => (
            <RoundTally
              // biome-ignore lint/suspicious/noArrayIndexKey: the groups stand in order
              key={group}
              done={(resting ? turn : turn - 1) - 5 * group}
              now={resting ? -1 : turn - 1 - 5 * group}
              of={Math.min(5, count - 5 * group)}
            />
          ))}
        </span>
      )}
    </span>
  );
}

interface DigitsProps {
  now: View<Piece>;
  /** Reps left, where they are counted. */
  counting: number | null;
  held: boolean;
  started: boolean;
  outlined: boolean;
  /** Whether everybody is warm is asked before the start. */
  asking: boolean;
}

/** What the big digits say: reps or seconds left. */
function digitsOf({ now, counting, started, asking }: DigitsProps): string {
  if (asking) return "WARM?";
  if (now.phase === "done") return "0";
  if (!started) return "GO";
  const left = counting ?? Math.ceil(now.left_s - 0.001);
  return counting === null && left >= 100 ? clock(left) : String(left).padStart(2, "0");
}

/** How much of its box a line of digits may fill. */
const BOX_CQW = 94;
/** A sign's width in the clock's face, as a share of the font's size, measured. */
const widthOf = (sign: string): number => (sign === ":" ? 0.25 : /\d/.test(sign) ? 0.46 : 0.55);

/** As large as its box allows: a figure is about 0.7 of the font high. */
export function Digits(props: DigitsProps) {
  const { held, outlined } = props;
  const text = digitsOf(props);
  const wide = BOX_CQW / [...text].reduce((sum, sign) => sum + widthOf(sign), 0);
  return (
    <span
      data-testid="clock"
      className="block self-end overflow-visible pl-4 font-semibold leading-[0.740] min-[900px]:pl-10"
      style={
        {
          fontSize: `min(132cqh, ${wide.toFixed(1)}cqw)`,
          color: outlined && !held ? "transparent" : undefined,
          WebkitTextStroke: outlined && !held ? "max(3px, 0.500vw) var(--ink)" : undefined,
        } as CSSProperties
      }
    >
      {text}
    </span>
  );
}

interface AheadProps {
  plan: Plan;
  now: View<Piece>;
  wordOf: (piece: Piece) => string;
  /** Which beat of its interval it is, where a pulse is wanted. */
  beat: number | null;
  compact?: boolean;
}

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

/** The combination, spelled out, with the strike that is on the beat. */
export function calledRows(calls: readonly string[], beat: number | null): Row[] {
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

/** What is struck, or what is done and comes next: beside the digits in the hall, below them on a phone. */
export function Ahead({ plan, now, wordOf, beat, compact }: AheadProps) {
  // In a pause the coming combination stands there, so that nobody stands and thinks when the bell goes.
  const shown = now.phase === "work" ? now.piece : (now.next ?? now.piece);
  const called = shown?.calls ?? [];
  const from = Math.max(0, now.index);
  const rows = called.length
    ? calledRows(called, now.phase === "work" ? beat : null)
    : plan.timeline.slice(from, from + (compact ? 3 : ROWS)).map(
        (piece, row): Row => ({
          key: `piece ${piece.start_s}`,
          word: wordOf(piece),
          figure: dose(piece),
          here: row === 0 && now.index >= 0,
        }),
      );
  const pace = called.length > 0 && now.phase === "work" && shown ? shown.pulse_per_min : 0;
  const head = pace > 0 ? `${Math.round(pace)} a minute` : called.length > 0 ? "Ready with" : null;
  return (
    <span
      className={`[container-type:inline-size] ${compact ? "mx-5 block pt-1 min-[900px]:hidden" : "mr-12 hidden self-start pt-6 min-[900px]:block"}`}
      data-testid={called.length > 0 ? "call" : undefined}
    >
      <span className="flex items-center justify-between gap-3 border-b border-[var(--rule-2)] pb-1 text-[22px] font-medium min-[900px]:text-[4vh]">
        <span className="truncate leading-[1.2]">
          {head ?? plan.part_names[now.piece?.part ?? now.next?.part ?? 0]}
        </span>
        <Clappers left_s={now.phase === "done" ? 9 : now.left_s} />
      </span>
      {rows.map((row) => (
        <span
          key={row.key}
          className="flex h-[42px] items-center justify-between gap-3 border-b border-[var(--rule-2)] px-3 leading-none font-semibold whitespace-nowrap min-[900px]:h-[10.25vh] min-[900px]:px-5"
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

/** How long, or how many. */
const dose = (piece: Piece): string => (piece.reps ? `${piece.reps} reps` : clock(piece.seconds));

export function Ground({ now, lit, held }: { now: View<Piece>; lit: boolean; held: boolean }) {
  const share = now.phase === "done" ? 0 : Math.min(1, Math.max(0, lit ? now.leftShare : 1 - now.leftShare));
  return (
    <span
      aria-hidden="true"
      className={`relative block h-[14px] ${held ? "border-t-2 border-dashed border-current" : "border-b-2 border-current"}`}
    >
      {!held && (
        <span
          className="absolute inset-y-0 left-0 w-full origin-left bg-current"
          style={{ transform: `scaleX(${share.toFixed(4)})` }}
        />
      )}
    </span>
  );
}
