import type { CSSProperties, ReactNode } from "react";
import type { Schemas } from "../../api/client";
import type { Piece } from "../../domain/clock/crew";
import { isRunning, lasted_s, type Run, repsLeft, timed } from "../../domain/clock/run";
import { nowMs } from "../../domain/clock/steady";
import { type View, view } from "../../domain/clock/view";
import { clock } from "../../domain/time";
import { RoundTally } from "./marks";
import { doneIn, dose } from "./told";

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
  /** Seconds for which open-ended work has been on: it counts up. */
  lasted: number | null;
  /** The phase as it stands on the screen, in capitals. */
  phase: string;
  /** What is said beside it: the effort, where the modality is what is done. */
  beside: string;
  /** A cue or a change of sides, in capitals, as long as it is being called. */
  called: string | null;
}

/** A called word stands for so long. */
const CALLED_S = 2;

/** The cue or the switch that is being called. */
export function calledAt(calls: Plan["calls"], at: number): string | null {
  const now = calls.findLast((call) => call.at_s <= at && at < call.at_s + CALLED_S && WORDS.has(call.kind));
  return now ? now.text.toUpperCase() : null;
}
const WORDS: ReadonlySet<string> = new Set(["cue", "switch"]);

/** What a screen shows of a run at a moment. */
export function shownOf(plan: Plan, run: Run, at: number): Shown {
  const now = view<Piece>(plan.timeline, at, plan.count_in_s);
  const started = run.startedAt !== null;
  const held = started && !isRunning(run) && run.endedAtMs === null && now.phase !== "done";
  return {
    now,
    started,
    held,
    lit: now.phase === "work" && !held && (now.piece?.seconds ?? 0) >= SHORTEST_LIT_S,
    counting: now.piece?.reps ? repsLeft(run, now.piece) : null,
    lasted: now.piece?.open_ended ? lasted_s(run, nowMs(), now.piece) : null,
    phase: phaseOf(now),
    beside: besideOf(now, plan.timeline),
    called: now.phase === "work" ? calledAt(plan.calls, at) : null,
  };
}

function phaseOf({ phase, piece }: View<Piece>): string {
  if (piece?.tempo === "show" && phase === "rest") return "WATCH";
  return phase === "work" ? (piece?.doing ?? "").toUpperCase() : PHASES[phase];
}

/** A change of kit stands in the pause before it; without one, in the work it is for. */
function besideOf({ phase, piece, next, index }: View<Piece>, timeline: readonly Piece[]): string {
  if (!piece || phase === "ready" || phase === "done") return "";
  if (phase !== "work") {
    if (next?.kit_change?.length) return next.kit_change.join(", ");
    return piece.doing === phase || piece.tempo === "show" ? "" : piece.doing;
  }
  const late = timeline[index - 1]?.kind === "work" ? (piece.kit_change ?? []) : [];
  return [piece.beside, ...late].filter(Boolean).join(", ");
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

/** As wide as a word may be beside the round, by its signs. */
const WORD_VW = 82;

/** The phase and the round, over the digits; on a hall screen the phase may grow past what a desk has room for. */
export function Top({ shown, largest = "" }: { shown: Shown; largest?: string }) {
  const { now, held, phase, beside, called } = shown;
  const word = held ? (now.piece?.open_ended ? "STOP AND LOOK" : "HELD") : (called ?? phase);
  const signs = word.length + (beside && !called ? beside.length / 2 : 0);
  return (
    <div className="flex items-baseline justify-between gap-4 px-5 pt-3 wide:px-12 wide:pt-4">
      <span
        className="leading-none font-bold"
        style={{ fontSize: `min(16vh, ${Math.min(12, WORD_VW / signs).toFixed(1)}vw${largest})` }}
      >
        <span>{word}</span>
        {beside && !held && !called && <span className="pl-[0.35em] text-[0.45em] font-semibold">{beside}</span>}
      </span>
      <Round now={now} tight={signs > 8} />
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
  const { now } = shown;
  const who = next ? `${next} ` : "";
  const about = plan.timeline.slice(Math.max(0, now.index)).every(timed) ? "" : "about ";
  return (
    <div className="flex items-center justify-between gap-4 px-5 pt-2 text-[24px] wide:px-12 wide:pt-3 wide:text-[5vh]">
      <span className="font-semibold">
        {now.next
          ? `Next: ${who}${doneIn(now.next)} ${dose(now.next)}`
          : now.phase === "done"
            ? "All done"
            : "Last one"}
      </span>
      <span className="font-semibold">
        {about}
        {clock(Math.ceil(plan.total_s - Math.max(0, at)))} left
      </span>
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
        <span className="hidden opacity-70 wide:inline">
          Set {now.set.turn} of {now.set.of},
        </span>
      )}
      <span>{resting ? "Next round" : "Round"}</span>
      <b className="text-[1.700em]">{resting ? turn + 1 : turn}</b>
      <span>of</span>
      <b className="text-[1.700em]">{count}</b>
      {count <= MOST_TALLIED && (
        <span className="hidden self-center pl-[0.3em] wide:flex wide:gap-[0.35em]">
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

/** What the big digits say: reps or seconds left, or how long it has been on. */
function digitsOf({ now, counting, lasted, started }: Shown, standing: number): string {
  if (now.phase === "done") return "0";
  if (!started) return "GO";
  if (lasted !== null) return clock(Math.floor(lasted));
  const left = counting ?? Math.ceil(now.left_s + standing - 0.001);
  return counting === null && left >= 100 ? clock(left) : String(left).padStart(2, "0");
}

/** How much of its box a line of digits may fill. */
const BOX_CQW = 94;
/** A sign's width in the clock's face, as a share of the font's size, measured. */
const widthOf = (sign: string): number => (sign === ":" ? 0.25 : /\d/.test(sign) ? 0.46 : 0.55);

interface DigitsProps {
  shown: Shown;
  /** Seconds that were added and are not over yet. */
  standing?: number;
  /** What is asked before the start, in the place of the digits. */
  asks?: string | null;
}

/** As large as its box allows: a figure is about 0.7 of the font high. */
export function Digits({ shown, standing = 0, asks = null }: DigitsProps) {
  const text = asks ?? digitsOf(shown, standing);
  const outlined = !shown.lit && !shown.held;
  const wide = BOX_CQW / [...text].reduce((sum, sign) => sum + widthOf(sign), 0);
  return (
    <span
      data-testid="clock"
      className="block self-end overflow-visible pl-4 font-semibold leading-[0.740] wide:pl-10"
      style={
        {
          fontSize: `min(132cqh, ${wide.toFixed(1)}cqw)`,
          color: outlined ? "transparent" : undefined,
          WebkitTextStroke: outlined ? "max(3px, 0.500vw) var(--ink)" : undefined,
        } as CSSProperties
      }
    >
      {text}
    </span>
  );
}

/** A bar that is drawn as often as the clock moves on evenly in between. */
const MOVES =
  "origin-left bg-current motion-safe:transition-transform motion-safe:duration-[50ms] motion-safe:ease-linear";

/** The side in front, and how long until it changes: a bar that shrinks to the switch. */
export function Sides({ piece, at }: { piece: Piece | null; at: number }) {
  const side = piece?.sides.find((each) => each.start_s <= at && at < each.end_s);
  if (!side && !piece?.switch_on_call) return null;
  const changes = side && piece?.sides.at(-1) !== side;
  const left = side && changes ? side.end_s - at : 0;
  return (
    <p
      data-testid="side"
      className="flex items-center gap-4 px-5 pt-2 text-[26px] leading-none font-semibold wide:px-12 wide:text-[5vh]"
    >
      {side && <span className="capitalize">{side.stance}</span>}
      {changes && (
        <>
          <span aria-hidden="true" className="h-[14px] flex-1 border-2 border-current">
            <span
              className={`block h-full w-full ${MOVES}`}
              style={{ transform: `scaleX(${(left / (side.end_s - side.start_s)).toFixed(4)})` }}
            />
          </span>
          <span>switch in {Math.ceil(left)}</span>
        </>
      )}
      {piece?.switch_on_call && <span>switch on the coach's call</span>}
    </p>
  );
}

export function Ground({ now, lit, held }: { now: View<Piece>; lit: boolean; held: boolean }) {
  const open = now.piece?.open_ended === true;
  const share = now.phase === "done" ? 0 : open ? 1 : Math.min(1, Math.max(0, lit ? now.leftShare : 1 - now.leftShare));
  return (
    <span
      aria-hidden="true"
      className={`relative block h-[14px] ${held || open ? "border-t-2 border-dashed border-current" : "border-b-2 border-current"}`}
    >
      {!held && !open && (
        <span
          className={`absolute inset-y-0 left-0 w-full ${MOVES}`}
          style={{ transform: `scaleX(${share.toFixed(4)})` }}
        />
      )}
    </span>
  );
}
