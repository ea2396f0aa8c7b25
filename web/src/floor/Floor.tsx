import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { runPlan } from "../api/queries";
import { forgetRun, recallRun } from "../clock/keptRun";
import { beatAt } from "../clock/pulse";
import { Notice } from "../parts/Notice";
import { Ahead, Coming, Digits, Ground, Hall, Top, useShown } from "./face";
import { Strip } from "./marks";
import { StartSheet } from "./StartSheet";
import { Unwell } from "./Unwell";
import { useCalls } from "./useCalls";
import { HOLD_MS, useFloorKeys } from "./useFloorKeys";
import { useRun } from "./useRun";

type Plan = Schemas["RunPlan"];

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

/** The clock of a run, with everything that is done to it. */
function Clock({ plan }: { plan: Plan }) {
  const navigate = useNavigate();
  const calls = useCalls(plan);
  const floor = useRun(plan, calls.settings.muted);
  const [warm, setWarm] = useState(plan.cold === null);
  const [unwell, setUnwell] = useState(false);
  const shown = useShown(plan, floor.run, floor.at);
  const { now, started, held, lit, counting, phase, wordOf } = shown;
  const resting = floor.running && (now.phase === "rest" || now.phase === "recover");
  const asking = !started && !warm;
  /** The start asks once whether everybody is warm; from then on it is start and pause. */
  const press = () => {
    if (asking) {
      setWarm(true);
      floor.happened("warm");
    } else floor.toggle();
  };
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
    <Hall shown={shown}>
      <p className="sr-only" aria-live="assertive">
        {held ? "Held" : phase}
      </p>
      <Top shown={shown} largest=", 128px" />
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
      <Pulse beat={held ? null : beatAt(now.piece, floor.at, floor.pulse)} />
      {started && <Ahead plan={plan} now={now} wordOf={wordOf} compact />}
      <Coming plan={plan} shown={shown} at={floor.at} />
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
          <Key name="T">{PULSE[String(floor.pulse)] ?? ""}</Key>
          <Key name="U">unwell</Key>
          <Key name="hold Esc">end</Key>
        </span>
        <span className="flex gap-4 min-[900px]:hidden">
          <button type="button" className="min-h-[44px] underline" onClick={floor.nextPulse}>
            {PULSE[String(floor.pulse)]}
          </button>
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
    </Hall>
  );
}

const PULSE: Record<string, string> = { 0: "no pulse", 1: "pulse", 2: "double time", 0.5: "half time" };

/** The pulse for the eye: four strokes, one inked at a time. It steps, nothing slides. */
function Pulse({ beat }: { beat: number | null }) {
  if (beat === null) return null;
  return (
    <span aria-hidden="true" data-testid="pulse" className="flex gap-2 px-5 pt-2 min-[900px]:px-12">
      {[0, 1, 2, 3].map((stroke) => (
        <span
          key={stroke}
          className="h-[10px] flex-1 border-2 border-current"
          style={{ background: beat % 4 === stroke ? "currentColor" : "transparent" }}
        />
      ))}
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
