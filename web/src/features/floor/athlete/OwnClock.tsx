import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../../api/client";
import { newCrew } from "../../../domain/clock/crew";
import { forgetRun, recallRun } from "../../../domain/clock/keptRun";
import { beatAt, shownPulse } from "../../../domain/clock/pulse";
import { Ahead } from "../Ahead";
import { Big, HoldToEnd, PULSE, Pulse, Small } from "../controls";
import { Coming, Digits, Ground, Hall, Sides, shownOf, Top } from "../face";
import { Strip } from "../marks";
import { useFloorKeys } from "../useFloorKeys";
import { useRun } from "../useRun";
import { speechOf } from "./link";
import { useOwnStrap } from "./useOwnStrap";

interface Props {
  plan: Schemas["RunPlan"];
  token: string;
  onOver: (runId: string) => void;
  onLeave: () => void;
}

const nothing = () => {};

/** The floor clock for one who trains alone: the same bells and calls, and nobody else to look after. */
export function OwnClock({ plan, token, onOver, onLeave }: Props) {
  const [runId] = useState(() => recallRun(plan.session_id)?.run.runId ?? crypto.randomUUID());
  const [crew] = useState(() => newCrew(plan));
  const run = useRun({
    plan,
    runId,
    crew,
    hushed: plan.call_settings.muted,
    speech: speechOf(token),
    happened: nothing,
    share: nothing,
  });
  const strap = useOwnStrap(runId, run.position, run.running);
  const shown = shownOf(plan, run.run, run.at);
  const { now, started, held, lit, counting, lasted, phase, beside, called } = shown;
  const over = now.phase === "done";
  const { write } = strap;
  const resting = run.running && (now.phase === "rest" || now.phase === "recover");
  const finish = () => {
    write();
    onOver(runId);
  };
  const ended = useRef(finish);
  ended.current = finish;
  useEffect(() => {
    if (!over) return;
    // The last bell rings out first.
    const timer = setTimeout(() => ended.current(), 4000);
    return () => clearTimeout(timer);
  }, [over]);
  const leave = () => {
    if (!started) {
      forgetRun(runId);
      onLeave();
      return;
    }
    run.finish();
    finish();
  };
  useFloorKeys({ ...run, unwell: run.hold, counting: counting !== null, leave, done: over, toLog: finish });
  const pauseWord = lasted === null ? "Pause" : "Stop and look";
  const word = over ? "How was it?" : run.running ? pauseWord : started ? "Go on" : "Start";
  const beat = held ? null : beatAt(now.piece, run.at, shownPulse(now.piece, run.pulse));
  return (
    <Hall shown={shown}>
      <p className="sr-only" aria-live="assertive">
        {held ? "Held" : (called ?? `${phase} ${beside}`)}
      </p>
      <Top shown={shown} largest=", 128px" />
      <div className="grid min-h-0 flex-1 items-end wide:grid-cols-[52%_1fr] wide:grid-rows-[minmax(0,1fr)]">
        <button
          type="button"
          className="flex h-full cursor-pointer items-end text-left [container-type:size]"
          onClick={over ? finish : counting && run.running ? run.rep : run.toggle}
          aria-label={counting && run.running ? `Count a rep, ${counting} left` : word}
        >
          <Digits shown={shown} standing={run.standing} />
        </button>
        {started && <Ahead plan={plan} now={now} beat={beat} at={run.at} />}
      </div>
      <Ground now={now} lit={lit} held={held} />
      <Sides piece={now.piece} at={run.at} />
      <Pulse beat={beat} eights={now.piece?.music_per_min != null} />
      {started && <Ahead plan={plan} now={now} beat={beat} at={run.at} compact />}
      <Coming plan={plan} shown={shown} at={run.at} next="" />
      <div className="px-5 wide:px-12 low:hidden">
        <Strip plan={plan} at={run.at} />
      </div>
      <div className="flex flex-col gap-2 px-5 pt-2 pb-2 wide:px-12 low:flex-row">
        <div className="flex flex-1 gap-2">
          <Big onClick={run.back}>Back</Big>
          <Big main onClick={over ? finish : run.toggle}>
            {word}
          </Big>
          <Big onClick={run.skip}>{lasted === null ? "Skip" : "Done"}</Big>
        </div>
        <div className="flex flex-1 gap-2">
          {resting && (
            <Big small onClick={run.more}>
              + 10 s
            </Big>
          )}
          {counting !== null && (
            <Big small onClick={run.rep}>
              Rep
            </Big>
          )}
          <HoldToEnd onEnd={leave} />
        </div>
      </div>
      <div className="flex flex-wrap items-center gap-x-6 px-5 pb-3 text-[18px] opacity-80 wide:px-12 low:hidden">
        <Small onClick={run.nextPulse}>{PULSE[String(run.pulse)]}</Small>
        <Small onClick={run.switchSound}>{run.sound ? "Sound on" : "Sound off"}</Small>
        {run.running && !run.audible && <Small onClick={() => void run.wake()}>Tap here for sound</Small>}
        {strap.possible && <Small onClick={() => void strap.find()}>{strap.words}</Small>}
        {!started && plan.silent && <span>{plan.silent}</span>}
        {!started && plan.cold !== null && <b>Hard work comes first: be warm before you start.</b>}
      </div>
    </Hall>
  );
}
