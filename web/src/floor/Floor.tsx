import { useQuery } from "@tanstack/react-query";
import { type CSSProperties, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { runPlan, vocabulary as vocabularyQuery } from "../api/queries";
import { forgetRun, recallRun } from "../clock/keptRun";
import { repsLeft } from "../clock/run";
import { type View, view } from "../clock/view";
import { Notice } from "../parts/Notice";
import { clock } from "../parts/time";
import { Clappers, Strip } from "./marks";
import { StartSheet } from "./StartSheet";
import { Unwell } from "./Unwell";
import { useCalls } from "./useCalls";
import { HOLD_MS, useFloorKeys } from "./useFloorKeys";
import { useRun } from "./useRun";

type Plan = Schemas["RunPlan"];
type Piece = Schemas["TimelineInterval"];

/** Run a session: readable from across the hall, one big key. */
export function Floor() {
  const sessionId = Number(useParams().sessionId);
  const [kept, setKept] = useState(() => recallRun(sessionId));
  const begun = kept?.run.startedAt ? kept : null;
  const query = useQuery({ ...runPlan(sessionId), enabled: begun === null });
  const navigate = useNavigate();
  if (begun && begun.run.endedAtMs !== null) {
    return (
      <Notice title="This run waits for its log" text={`${begun.plan.title} has ended and is not logged yet.`}>
        <button type="button" className="act main" onClick={() => navigate(`/log/run?session=${sessionId}`)}>
          Log it
        </button>
        <button
          type="button"
          className="act"
          onClick={() => {
            forgetRun(sessionId);
            setKept(null);
          }}
        >
          Leave it out and run again
        </button>
      </Notice>
    );
  }
  const plan = begun?.plan ?? query.data;
  if (query.error && !plan) {
    return (
      <Notice title="This session cannot be run" text={query.error.message}>
        <Link className="act main" to="/library">
          Go to the library
        </Link>
      </Notice>
    );
  }
  if (!plan) return <Notice waiting lost={query.failureCount > 0} title="Setting the clock" />;
  if (plan.timeline.length === 0) {
    return (
      <Notice title="Nothing to run" text="This session has no parts yet.">
        <Link className="act main" to={`/bench/${sessionId}`}>
          Put it on the bench
        </Link>
      </Notice>
    );
  }
  return <Clock plan={plan} />;
}

/** Work inverts the whole screen: hall ink on the lightest sheet. */
const FIELD_INVERTED = { "--paper": "#FBF8F1", "--ink": "#10141F" } as CSSProperties;

const PHASES = { ready: "READY", done: "DONE", rest: "REST", recover: "RECOVER" };

function Clock({ plan }: { plan: Plan }) {
  const navigate = useNavigate();
  const calls = useCalls(plan);
  const floor = useRun(plan, calls.settings.muted);
  const [warm, setWarm] = useState(plan.cold === null);
  const [unwell, setUnwell] = useState(false);
  const words = useQuery(vocabularyQuery).data?.tempos;
  const wordOf = (piece: Piece | null) => words?.find((tempo) => tempo.id === piece?.tempo)?.word ?? piece?.tempo ?? "";
  const now = view<Piece>(plan.timeline, floor.at, plan.count_in_s);
  const started = floor.run.startedAt !== null;
  const held = started && !floor.running && now.phase !== "done";
  const counting = now.piece?.reps ? repsLeft(floor.run, now.piece) : null;
  const resting = floor.running && (now.phase === "rest" || now.phase === "recover");
  const asking = !started && !warm;
  /** The start asks once whether everybody is warm; from then on it is start and pause. */
  const press = () => {
    if (asking) {
      setWarm(true);
      floor.happened("warm");
    } else floor.toggle();
  };
  const lit = now.phase === "work" && !held && (now.piece?.seconds ?? 0) >= 5;
  const toLog = () => navigate(`/log/run?session=${plan.session_id}`, { replace: true });
  const leave = () => {
    if (!started) {
      forgetRun(plan.session_id);
      navigate(`/bench/${plan.session_id}`);
      return;
    }
    floor.finish();
    toLog();
  };
  const phase =
    now.phase === "work" ? wordOf(now.piece).toUpperCase() : now.piece?.partner ? "PARTNER" : PHASES[now.phase];
  const callFor = () => {
    floor.hold();
    floor.happened("unwell");
    setUnwell(true);
  };
  useFloorKeys({
    ...floor,
    toggle: press,
    unwell: callFor,
    counting: counting !== null,
    leave,
    done: now.phase === "done",
    toLog,
  });
  const startWord = asking ? "Cold: is everybody warm?" : "Start";
  const bigWord = floor.running ? "Pause" : started ? "Go on" : startWord;
  return (
    <main
      data-theme={lit ? "inkscore" : "nighthall"}
      data-phase={now.phase}
      className="flex h-dvh flex-col overflow-hidden bg-[var(--paper)] font-[family-name:var(--font-clock)] text-[var(--ink)] select-none"
      style={lit ? FIELD_INVERTED : undefined}
    >
      <p className="sr-only" aria-live="assertive">
        {held ? "Held" : phase}
      </p>
      <div className="flex items-baseline justify-between gap-4 px-5 pt-3 min-[900px]:px-12 min-[900px]:pt-4">
        <span
          className="font-bold leading-none"
          style={{ fontSize: `min(16vh, ${phase.length > 8 ? 9 : 12}vw, 128px)` }}
        >
          {held ? "HELD" : phase}
        </span>
        <Round now={now} tight={phase.length > 8} />
      </div>
      <div
        className={`min-h-0 flex-1 items-end min-[900px]:grid min-[900px]:grid-cols-[52%_1fr] ${started ? "grid" : "flex flex-col min-[900px]:grid-rows-[minmax(0,1fr)] min-[900px]:items-stretch"}`}
      >
        <button
          type="button"
          className={`flex cursor-pointer items-end text-left min-[900px]:h-full ${started ? "h-full" : "w-full"}`}
          onClick={now.phase === "done" ? toLog : counting && floor.running ? floor.rep : press}
          aria-label={counting && floor.running ? `Count a rep, ${counting} left` : bigWord}
        >
          <Digits
            now={floor.standing ? { ...now, left_s: now.left_s + floor.standing } : now}
            counting={counting}
            held={held}
            started={started}
            outlined={!lit}
            asking={asking}
          />
        </button>
        {started ? (
          <Ahead plan={plan} now={now} wordOf={wordOf} />
        ) : (
          <StartSheet
            plan={plan}
            settings={calls.settings}
            voiced={floor.voiced}
            failed={calls.failed}
            onSettings={calls.set}
            onTry={() => void floor.tryLoudness()}
          />
        )}
      </div>
      <Ground now={now} lit={lit} held={held} />
      {started && <Ahead plan={plan} now={now} wordOf={wordOf} compact />}
      <div className="flex items-center justify-between gap-4 px-5 pt-2 text-[24px] min-[900px]:px-12 min-[900px]:pt-4 min-[900px]:text-[40px]">
        <span className="font-semibold">
          {now.next ? `Next: ${wordOf(now.next)} ${dose(now.next)}` : now.phase === "done" ? "All done" : "Last one"}
        </span>
        <span className="font-semibold">{clock(Math.ceil(plan.total_s - Math.max(0, floor.at)))} left</span>
      </div>
      <div className="px-5 min-[900px]:px-12">
        <Strip plan={plan} at={floor.at} />
      </div>
      <div className="flex gap-[10px] px-5 pt-2 pb-3 min-[900px]:hidden">
        <Big onClick={floor.back}>Back</Big>
        <Big main onClick={now.phase === "done" ? toLog : press}>
          {now.phase === "done" ? "Log it" : asking ? "Warm?" : bigWord}
        </Big>
        <Big onClick={floor.skip}>Skip</Big>
      </div>
      <div className="flex items-center justify-between gap-4 px-5 pb-3 text-[18px] opacity-80 min-[900px]:px-12 min-[900px]:pt-3 min-[900px]:text-[20px]">
        <span className="hidden gap-6 min-[900px]:flex">
          <Key name="Space">{floor.running ? "pause" : "start"}</Key>
          <Key name="N">skip</Key>
          <Key name="B">back</Key>
          <Key name="S">{floor.sound ? "sound on" : "sound off"}</Key>
          {counting !== null && <Key name="Enter">count a rep</Key>}
          {resting && <Key name="+">10 s more</Key>}
          <Key name="U">unwell</Key>
          <Key name="hold Esc">end</Key>
        </span>
        <span className="flex gap-4 min-[900px]:hidden">
          <button type="button" className="min-h-[44px] underline" onClick={floor.switchSound}>
            {floor.sound ? "Sound on" : "Sound off"}
          </button>
          {resting && (
            <button type="button" className="min-h-[44px] underline" onClick={floor.more}>
              + 10 s
            </button>
          )}
          <button type="button" className="min-h-[44px] underline" onClick={callFor}>
            Unwell
          </button>
          <HoldToEnd onEnd={leave} />
        </span>
        {floor.running && !floor.audible && (
          <button type="button" className="min-h-[44px] underline" onClick={() => void floor.wake()}>
            Tap here for sound
          </button>
        )}
        <span className="truncate">{plan.title}</span>
      </div>
      {unwell && (
        <Unwell
          number={plan.emergency_number}
          onGoOn={() => {
            floor.happened("well");
            setUnwell(false);
          }}
          onEnd={() => {
            setUnwell(false);
            leave();
          }}
        />
      )}
    </main>
  );
}

function Round({ now, tight }: { now: View<Piece>; tight: boolean }) {
  if (!now.round) return <span />;
  const { turn, of: count } = now.round;
  const resting = now.phase === "rest" && turn < count && now.next?.rounds.some((next) => next.turn === turn + 1);
  return (
    <span
      className="flex items-baseline gap-[0.2em] leading-none font-semibold whitespace-nowrap"
      style={{ fontSize: `min(8vh, ${tight ? 4.6 : 6.5}vw, 60px)` }}
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
  if (now.phase === "done") return "0";
  if (!started) return asking ? "WARM?" : "GO";
  const left = counting ?? Math.ceil(now.left_s - 0.001);
  return counting === null && left >= 100 ? clock(left) : String(left).padStart(2, "0");
}

function Digits(props: DigitsProps) {
  const { held, started, outlined } = props;
  const text = digitsOf(props);
  const wide = text.length > 4 ? "40vh, 16vw" : text.length > 2 ? "62vh, 23vw" : "76vh, 44vw";
  const size = `min(${wide}, 608px)`;
  const phoneSize = started ? `min(52vh, ${text.length > 2 ? "58vw" : "104vw"})` : "min(24vh, 30vw)";
  return (
    <span
      data-testid="clock"
      className="block self-end overflow-visible pl-4 font-semibold leading-[0.740] [font-size:var(--phone)] min-[900px]:pl-10 min-[900px]:[font-size:var(--desk)]"
      style={
        {
          "--desk": size,
          "--phone": phoneSize,
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
  compact?: boolean;
}

/** What is being done and what comes next: beside the digits in the hall, below them on a phone. */
function Ahead({ plan, now, wordOf, compact }: AheadProps) {
  const from = Math.max(0, now.index);
  // In a pause the coming combination is called, so that nobody stands and thinks when the bell goes.
  const called = (now.phase === "work" ? now.piece : now.next)?.calls ?? [];
  const rows = plan.timeline.slice(from, from + (compact ? 3 : 4) - (called.length ? 1 : 0));
  return (
    <span className={compact ? "block px-5 pt-1 min-[900px]:hidden" : "hidden self-start pt-6 pr-12 min-[900px]:block"}>
      <span className="flex items-center justify-between border-b border-[var(--rule-2)] pb-1 text-[22px] font-medium min-[900px]:text-[32px]">
        <span>{plan.part_names[now.piece?.part ?? now.next?.part ?? 0]}</span>
        <Clappers left_s={now.phase === "done" ? 9 : now.left_s} />
      </span>
      {rows.map((piece, row) => {
        const here = row === 0 && now.index >= 0;
        return (
          <span
            key={piece.start_s}
            className="flex h-[42px] items-center justify-between border-b border-[var(--rule-2)] px-3 text-[32px] font-semibold leading-none min-[900px]:h-[82px] min-[900px]:px-5 min-[900px]:text-[62px]"
            style={here ? { background: "var(--ink)", color: "var(--paper)" } : undefined}
          >
            <span>{wordOf(piece)}</span>
            <span className={here ? "" : "opacity-70"}>{dose(piece)}</span>
          </span>
        );
      })}
      {called.length > 0 && (
        <span
          data-testid="call"
          className="block px-3 pt-2 text-[26px] leading-[1.1] font-semibold min-[900px]:px-5 min-[900px]:text-[46px]"
        >
          {called.join(", ")}
        </span>
      )}
    </span>
  );
}

/** How long, or how many. */
const dose = (piece: Piece): string => (piece.reps ? `${piece.reps} reps` : clock(piece.seconds));

function Ground({ now, lit, held }: { now: View<Piece>; lit: boolean; held: boolean }) {
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

function Big({ children, main, onClick }: { children: string; main?: boolean; onClick: () => void }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className={`h-[78px] cursor-pointer rounded-[4px] border-[3px] border-current text-[34px] font-semibold ${main ? "flex-[1.7]" : "flex-1"}`}
    >
      {children}
    </button>
  );
}

function Key({ name, children }: { name: string; children: string }) {
  return (
    <span>
      <kbd className="font-[family-name:var(--font-clock)] mr-2 rounded-[2px] border border-current px-2 font-semibold">
        {name}
      </kbd>
      {children}
    </span>
  );
}

function HoldToEnd({ onEnd }: { onEnd: () => void }) {
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const [holding, setHolding] = useState(false);
  const stop = () => {
    clearTimeout(timer.current);
    setHolding(false);
  };
  return (
    <button
      type="button"
      className="min-h-[44px] underline"
      onPointerDown={() => {
        setHolding(true);
        timer.current = setTimeout(onEnd, HOLD_MS);
      }}
      onPointerUp={stop}
      onPointerLeave={stop}
    >
      {holding ? "Keep holding" : "Hold to end"}
    </button>
  );
}
