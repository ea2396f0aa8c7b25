import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { inPairs, simulates, works } from "../../domain/clock/crew";
import { forgetRun, recallRun } from "../../domain/clock/keptRun";
import { beatAt, shownPulse } from "../../domain/clock/pulse";
import { playedBetween_s } from "../../domain/clock/run";
import { nowMs } from "../../domain/clock/steady";
import { pieceAt, skipTo } from "../../domain/clock/view";
import { Keys } from "../../ui/Keys";
import { FLOOR } from "../../ui/keymap";
import { Ahead } from "./Ahead";
import { ClassPanel } from "./ClassPanel";
import { Big, HoldToEnd, Key, PULSE, Pulse, Small } from "./controls";
import { Coming, Digits, Ground, Hall, Sides, shownOf, Top } from "./face";
import { Moves } from "./Moves";
import { Strip } from "./marks";
import { People, type Shown, shownPeople, turnOf } from "./People";
import { StartSheet } from "./StartSheet";
import { share } from "./share";
import { Unwell } from "./Unwell";
import { useBoard } from "./useBoard";
import { useCalls } from "./useCalls";
import { useCrew } from "./useCrew";
import { useDevices } from "./useDevices";
import { useFloorKeys } from "./useFloorKeys";
import { useGate } from "./useGate";
import { useJournal } from "./useJournal";
import { useRun } from "./useRun";
import { useStruckReps } from "./useStruckReps";

type Plan = Schemas["RunPlan"];

interface Props {
  plan: Plan;
  /** On the floor, by the plan: each of them does all that is done in pairs. */
  people: number;
  onPeople: (people: number) => void;
  /** Who was planned to come. */
  who: readonly Schemas["Somebody"][];
  /** Of a class: it was changed while it runs. */
  onPlan: (plan: Plan) => void;
}

/** The clock of a run, with everything that is done to it. */
export function Clock({ plan, people: many, onPeople, who, onPlan }: Props) {
  const navigate = useNavigate();
  const calls = useCalls(plan);
  const [runId] = useState(() => recallRun(plan.session_id)?.run.runId ?? crypto.randomUUID());
  const crew = useCrew(plan, runId, many, onPeople, who);
  const gate = useGate(plan.session_id, crew.crew, plan.board ?? null);
  const [classOpen, setClassOpen] = useState(false);
  const board = useBoard(plan, runId, onPlan);
  const people = useRef<Shown[]>([]);
  const happened = useJournal(plan, runId);
  const floor = useRun({
    plan,
    runId,
    crew: crew.crew,
    hushed: calls.settings.muted,
    happened,
    share: (run, pulse) => void share(plan, run, { pulse, people: people.current }),
  });
  const [warm, setWarm] = useState(false);
  /** A skip would lead from too little warm-up into hard work: it is asked about first. */
  const [gated, setGated] = useState(false);
  const [unwell, setUnwell] = useState(false);
  /** What was pressed while it was still looked up who may start: done in order as soon as that is known. */
  const queue = useRef<("start" | "skip")[]>([]);
  const shown = shownOf(plan, floor.run, floor.at);
  const { now, started, held, lit, counting, lasted, phase, beside, called } = shown;
  const { shift } = floor.run;
  const struck = useStruckReps(floor.rep);
  const devices = useDevices({
    sessionId: plan.session_id,
    runId,
    crew: crew.crew,
    shift,
    position: floor.position,
    running: floor.running,
    onStrike: (place) => {
      const piece = pieceAt(plan.timeline, floor.position());
      if (piece && works(piece, place, crew.crew.length, shift)) struck(piece);
    },
    onStrap: (place, state) => {
      const letter = crew.crew[place]?.letter ?? "";
      if (started && state !== "looking") floor.happened(state === "on" ? "strap" : "strap-lost", { letter });
    },
  });
  people.current = shownPeople(crew.crew, devices.measured, now.piece, floor.at, shift);

  const resting = floor.running && (now.phase === "rest" || now.phase === "recover");
  const shut = !started && gate.shut;
  /** Nothing easy comes first, by the plan or because it was skipped before the start. */
  const cold = plan.cold !== null || (plan.warmth !== null && floor.at >= plan.warmth.from_s);
  const asking = (!started && cold && !warm) || gated;
  /** The start asks once whether everybody is warm; from then on it is start and pause. */
  const press = () => {
    if (!started && gate.pending) {
      // One press answers whether all are warm, where that is asked, and one starts; a further one would pause.
      // What is skipped comes behind both, also where it was pressed between them.
      const starts = queue.current.filter((pressed) => pressed === "start").length;
      if (starts < (asking ? 2 : 1)) queue.current.unshift("start");
      return;
    }
    if (shut) return document.querySelector("[aria-label='Stops']")?.scrollIntoView({ block: "nearest" });
    if (!started && gate.seen && gate.stopped.length > 0) floor.happened("overruled", overruled(gate.stopped));
    if (!asking) return floor.toggle();
    setWarm(true);
    floor.happened("warm");
    if (!gated) return;
    setGated(false);
    floor.skip();
    floor.toggle();
  };
  /** A skip would lead into hard work before there was warm-up enough, and nobody has said that all are warm. */
  const tooCold = () => {
    const { warmth, cold } = plan;
    const at = floor.position();
    if (!started || warm || cold !== null || !warmth || at >= warmth.from_s) return false;
    const easy_s = playedBetween_s(floor.run, nowMs(), 0, warmth.from_s);
    return skipTo(plan.timeline, at) >= warmth.from_s && easy_s < warmth.needed_s;
  };
  const skip = () => {
    if (gated) return;
    if (queue.current.length > 0 && gate.pending) {
      queue.current.push("skip");
      return;
    }
    if (tooCold()) {
      floor.hold();
      setGated(true);
    } else floor.skip();
  };
  useEffect(() => {
    const next = queue.current[0];
    if (!next || gate.pending || (next === "skip" && !started)) return;
    queue.current = shut ? [] : queue.current.slice(1);
    if (next === "start") press();
    else skip();
  });
  const back = () => {
    if (!gated) return floor.back();
    setGated(false);
    floor.toggle();
  };
  const toLog = () => navigate(`/log/run?run=${runId}`, { replace: true });
  const leave = () => {
    if (!started) {
      forgetRun(runId);
      navigate(plan.session_id === null ? "/library" : `/bench/${plan.session_id}`);
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
    skip,
    back,
    unwell: callFor,
    counting: counting !== null,
    leave,
    done: now.phase === "done",
    toLog,
    board: plan.board ? () => setClassOpen(true) : undefined,
  });
  const { write } = devices;
  const over = now.phase === "done";
  useEffect(() => {
    if (over) write();
  }, [over, write]);

  const pauseWord = lasted === null ? "Pause" : "Stop and look";
  const bigWord = shut
    ? "Stopped: read why"
    : asking
      ? "Cold: is everybody warm?"
      : floor.running
        ? pauseWord
        : started
          ? "Go on"
          : "Start";
  const skipWord = lasted === null ? "Skip" : "Done";
  const beat = held ? null : beatAt(now.piece, floor.at, shownPulse(now.piece, floor.pulse));
  const lost = devices.measured.some(({ heart }) => heart?.state === "lost");
  const simulated = crew.crew.some(simulates);
  return (
    <Hall shown={shown}>
      <p className="sr-only" aria-live="assertive">
        {gated ? "Is everybody warm?" : held ? "Held" : (called ?? `${phase} ${beside}`)}
        {lost && ". A strap is lost."}
      </p>
      <Top shown={shown} largest=", 128px" />
      <div
        className={`min-h-0 flex-1 items-end wide:grid wide:grid-cols-[52%_1fr] wide:grid-rows-[minmax(0,1fr)] ${started ? "grid" : "flex flex-col wide:items-stretch"}`}
      >
        <button
          type="button"
          className={`flex cursor-pointer items-end text-left [container-type:size] wide:h-full ${started ? "h-full" : "h-[24vh] w-full flex-none"}`}
          onClick={over ? toLog : counting && floor.running ? floor.rep : press}
          aria-label={counting && floor.running ? `Count a rep, ${counting} left` : bigWord}
        >
          <Digits shown={shown} standing={floor.standing} asks={shut ? "STOP" : asking ? "WARM?" : null} />
        </button>
        {started ? (
          <Ahead plan={plan} now={now} beat={beat} at={floor.at} />
        ) : (
          <StartSheet
            plan={plan}
            settings={calls.settings}
            voiced={floor.voiced}
            failed={calls.failed}
            crew={crew}
            gate={gate}
            devices={devices}
            onSettings={calls.set}
            onTry={() => void floor.tryLoudness()}
          />
        )}
      </div>
      <Ground now={now} lit={lit} held={held} />
      <Sides piece={now.piece} at={floor.at} />
      <Pulse beat={beat} eights={now.piece?.music_per_min != null} />
      {started && <Ahead plan={plan} now={now} beat={beat} at={floor.at} compact />}
      {started && (
        <People
          people={people.current}
          piece={now.piece}
          shift={shift}
          onFind={(place) => crew.crew[place]?.strap === "bluetooth" && void devices.find(place)}
        />
      )}
      {started && plan.board && <Moves board={plan.board} at={floor.at} kept={board.kept} />}
      <Coming plan={plan} shown={shown} at={floor.at} next={turnOf(people.current, now.next, shift)} />
      <div className="px-5 wide:px-12 low:hidden">
        <Strip plan={plan} at={floor.at} />
      </div>
      <div className="flex flex-col gap-2 px-5 pt-2 pb-2 wide:px-12 low:flex-row keys:hidden">
        <div className="flex flex-1 gap-2">
          <Big onClick={back}>Back</Big>
          <Big main onClick={over ? toLog : press}>
            {over ? "Log it" : shut ? "Stopped" : asking ? "Warm?" : bigWord}
          </Big>
          <Big onClick={skip}>{skipWord}</Big>
        </div>
        <div className="flex flex-1 gap-2">
          <Big small onClick={callFor}>
            Unwell
          </Big>
          {resting && (
            <Big small onClick={floor.more}>
              + 10 s
            </Big>
          )}
          {plan.board && (
            <Big small onClick={() => setClassOpen(true)}>
              Class
            </Big>
          )}
          {inPairs(plan) && !plan.board && (
            <Big small onClick={floor.swap}>
              Swap
            </Big>
          )}
          {counting !== null && (
            <Big small onClick={floor.rep}>
              Rep
            </Big>
          )}
          <HoldToEnd onEnd={leave} />
        </div>
      </div>
      <div className="flex items-center justify-between gap-4 px-5 pb-3 text-[18px] opacity-80 wide:px-12 wide:pt-2 wide:text-[20px] low:hidden">
        <span className="hidden gap-5 keys:flex">
          <Key of="toggle">{floor.running ? "pause" : "start"}</Key>
          <Key of="skip">{skipWord.toLowerCase()}</Key>
          <Key of="back">back</Key>
          {inPairs(plan) && <Key of="swap">swap A and B</Key>}
          <Key of="switchSound">{floor.sound ? "sound on" : "sound off"}</Key>
          {counting !== null && <Key of="rep">count a rep</Key>}
          {resting && <Key of="more">10 s more</Key>}
          <Key of="nextPulse">{PULSE[String(floor.pulse)] ?? ""}</Key>
          <Key of="unwell">unwell</Key>
          <Key of="leave">end</Key>
          <Keys places={[FLOOR]} />
        </span>
        <span className="flex flex-wrap gap-x-6 keys:hidden">
          <Small onClick={floor.nextPulse}>{PULSE[String(floor.pulse)]}</Small>
          <Small onClick={floor.switchSound}>{floor.sound ? "Sound on" : "Sound off"}</Small>
        </span>
        {floor.running && !floor.audible && <Small onClick={() => void floor.wake()}>Tap here for sound</Small>}
        <span className="truncate not-wide:hidden">
          {simulated && "simulated devices, "}
          {plan.title}
        </span>
      </div>
      {classOpen && plan.board && (
        <ClassPanel
          board={plan.board}
          at={floor.at}
          onBoard={(next, said) => {
            floor.happened("board", { said });
            board.change(next);
          }}
          onClose={() => setClassOpen(false)}
        />
      )}
      {unwell && (
        <Unwell
          number={plan.emergency_number}
          crew={crew.crew}
          runId={runId}
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

/** What a coach went past, for the record: whose rules, by name. */
const overruled = (stopped: Schemas["Stopped"][]): Record<string, string> =>
  Object.fromEntries(
    stopped.slice(0, 8).map(({ person_id, stops }) => [String(person_id), stops.map((stop) => stop.rule).join(", ")]),
  );
