import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { inPairs, type Member } from "../../domain/clock/crew";
import { CuePlayer } from "../../domain/clock/cuePlayer";
import { keepRun, recallRunById } from "../../domain/clock/keptRun";
import { FACTORS, type Factor, pulses } from "../../domain/clock/pulse";
import {
  add,
  countRep,
  end,
  endOpenEnded,
  isRunning,
  jump,
  lasted_s,
  newRun,
  pause,
  position,
  type Run,
  resume,
  standing_s,
  swap,
  waitForTheEnd,
  waitsAt_s,
} from "../../domain/clock/run";
import { nowMs, onJump, watchTheClock } from "../../domain/clock/steady";
import { backTo, pieceAt, skipTo, stepAt, untilStep_ms } from "../../domain/clock/view";
import { Voice } from "../../domain/clock/voice";
import { rounded } from "../../domain/rounded";
import { useScreenAwake } from "../../ui/useScreenAwake";
import { drawing } from "./drawing";
import type { Happened } from "./useJournal";

type Plan = Schemas["RunPlan"];

/** What one key adds to a rest [s]. */
const MORE_S = 10;
const SAID_EVERY_MS = 2000;

interface Given {
  plan: Plan;
  runId: string;
  crew: Member[];
  /** Kinds of calls and sounds that are muted. */
  hushed: readonly string[];
  /** Where phrases are asked for. */
  speech?: string;
  /** Writes down what happens, at a session time. */
  happened: Happened;
  /** Told at every act, and now and then while the clock moves, for other screens. */
  share: (run: Run, pulse: Factor) => void;
}

/** The floor clock: every act is written to this device before it is shown. */
export function useRun({ plan, runId, crew, hushed, speech, happened, share }: Given) {
  const [run, setRun] = useState<Run>(() => recallRunById(runId)?.run ?? newRun(runId, plan.count_in_s));
  const [at, setAt] = useState(() => stepAt(position(run, nowMs())));
  const [standing, setStanding] = useState(0);
  const [, setLasted] = useState(0);
  const [pulse, setPulse] = useState<Factor>(0);
  const [sound, setSound] = useState(true);
  const [audible, setAudible] = useState(false);
  const latest = useRef(run);
  const told = useRef<(run: Run) => void>(() => {});
  told.current = (next) => share(next, pulse);
  const kept = useRef(crew);
  kept.current = crew;
  const player = useRef<CuePlayer | null>(null);
  const [voice] = useState(() => new Voice(speech));
  const ready = useVoice(plan, voice);

  const write = useCallback(
    (next: Run) => {
      latest.current = next;
      keepRun({ plan, run: next, crew: kept.current });
      told.current(next);
      setRun(next);
      setAt(stepAt(position(next, nowMs())));
    },
    [plan],
  );
  const act = useCallback(
    (kind: Parameters<typeof happened>[0], change: (run: Run, now: number) => Run) => {
      const now = nowMs();
      const before = position(latest.current, now);
      const next = change(latest.current, now);
      if (next === latest.current) return;
      write(next);
      const to_s = rounded(1, position(next, now));
      happened(kind, before, kind === "skip" || kind === "back" ? { to_s } : undefined);
      player.current?.replan();
    },
    [write, happened],
  );

  const wake = useCallback(async () => {
    player.current ??= new CuePlayer(
      plan.cues,
      // While the clock stands nothing is planned: it is not known for how long.
      () => {
        const { anchorMs, anchor_s } = latest.current;
        return anchorMs === null || standing_s(latest.current, nowMs()) > 0 ? null : anchorMs - 1000 * anchor_s;
      },
      nowMs,
      plan.calls.map((call) => ({ ...call, speech: plan.speech[call.text] ?? null })),
      voice,
      () => waitsAt_s(latest.current, plan.timeline),
    );
    const woken = player.current;
    await woken.wake();
    // Whoever has left the floor meanwhile, or has another plan, hears nothing of this one.
    if (player.current === woken) setAudible(woken.audible);
  }, [plan, voice]);

  useEffect(
    () => () => {
      player.current?.close();
      player.current = null;
    },
    [],
  );
  // What is called has become another, such as after somebody came late: what was planned of it goes.
  const playing = useRef(plan);
  useEffect(() => {
    if (playing.current === plan) return;
    playing.current = plan;
    if (latest.current.startedAt) {
      keepRun({ plan, run: latest.current, crew: kept.current });
      told.current(latest.current);
    }
    if (!player.current) return;
    player.current.close();
    player.current = null;
    void wake();
  }, [plan, wake]);
  useEffect(() => player.current?.mute(!sound), [sound]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: also once there is a player
  useEffect(() => player.current?.hush(mutedOf(hushed)), [hushed, audible]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: also once there is a player
  useEffect(() => player.current?.beat(pulses(plan.timeline, pulse)), [plan, pulse, audible]);
  useEffect(() => {
    if (ready && audible) void player.current?.learn();
  }, [ready, audible]);

  useEffect(watchTheClock, []);
  useEffect(
    () =>
      onJump(() => {
        // The next page must know the device's new time; and what was planned has been slept through.
        if (latest.current.startedAt) keepRun({ plan, run: latest.current, crew: kept.current });
        player.current?.replan();
      }),
    [plan],
  );

  const running = isRunning(run);
  useEffect(() => {
    if (!running) return;
    return drawing(() => {
      const now = nowMs();
      const here = position(latest.current, now);
      const next = waitForTheEnd(latest.current, now, plan.total_s, plan.timeline);
      if (next !== latest.current) write(next);
      const at_s = position(next, now);
      const piece = pieceAt(plan.timeline, at_s);
      if (here >= plan.total_s && next.waitsSinceMs === null) {
        write(end(next, now, plan.total_s));
        happened("end", plan.total_s);
        // Not replanned: the last bell is still ringing.
        return null;
      }
      setAt(stepAt(at_s));
      setStanding(stepAt(standing_s(next, now)));
      // While the clock stands before the end of what is open-ended, its length still grows on the screen.
      if (piece?.open_ended) setLasted(Math.floor(lasted_s(next, now, piece)));
      return untilStep_ms(at_s);
    });
  }, [running, plan, write, happened]);

  useEffect(() => {
    if (!running) return;
    // A screen that joins late, or was away, finds it.
    const timer = setInterval(() => told.current(latest.current), SAID_EVERY_MS);
    return () => clearInterval(timer);
  }, [running]);
  useScreenAwake(running);

  return {
    run,
    at,
    /** Seconds that were added and are not over yet. */
    standing,
    running,
    sound,
    audible,
    /** Whether all that is said can be played without a network. */
    voiced: ready,
    toggle: useCallback(() => {
      void wake();
      if (isRunning(latest.current)) act("pause", (now_, ms) => pause(now_, ms, plan.total_s));
      else act(latest.current.startedAt ? "go-on" : "start", (now_, ms) => resume(now_, ms, plan.total_s));
    }, [act, wake, plan]),
    hold: useCallback(() => act("pause", (now_, ms) => pause(now_, ms, plan.total_s)), [act, plan]),
    skip: useCallback(() => {
      act("skip", (now_, ms) => {
        const done = endOpenEnded(now_, ms, plan.total_s, pieceAt(plan.timeline, position(now_, ms)));
        return done === now_ ? jump(now_, ms, plan.total_s, skipTo(plan.timeline, position(now_, ms))) : done;
      });
    }, [act, plan]),
    back: useCallback(
      () => act("back", (now_, ms) => jump(now_, ms, plan.total_s, backTo(plan.timeline, position(now_, ms)))),
      [act, plan],
    ),
    /** Ten seconds more, in a rest. */
    more: useCallback(() => {
      if (pieceAt(plan.timeline, position(latest.current, nowMs()))?.kind === "work") return;
      act("add", (now_, ms) => add(now_, ms, plan.total_s, MORE_S));
    }, [act, plan]),
    rep: useCallback(() => {
      const piece = pieceAt(plan.timeline, position(latest.current, nowMs()));
      if (!piece?.reps) return;
      player.current?.play("count");
      act("rep", (now_, ms) => countRep(now_, ms, plan.total_s, piece));
    }, [act, plan]),
    /** A and B change places. */
    swap: useCallback(() => {
      if (inPairs(plan)) act("swap", (now_, ms) => swap(now_, ms, plan.total_s));
    }, [act, plan]),
    finish: useCallback(() => {
      act("end", (now_, ms) => {
        const here = pieceAt(plan.timeline, position(now_, ms));
        return end(endOpenEnded(now_, ms, plan.total_s, here), ms, plan.total_s);
      });
    }, [act, plan]),
    pulse,
    /** Off, as it is, double time, half time, and off again. */
    nextPulse: useCallback(() => {
      void wake();
      setPulse((now) => FACTORS[(FACTORS.indexOf(now) + 1) % FACTORS.length] ?? 0);
    }, [wake]),
    switchSound: useCallback(() => {
      void wake();
      setSound((on) => !on);
    }, [wake]),
    /** Bell, clack and count, one after the other, to set the loudness by. */
    tryLoudness: useCallback(async () => {
      await wake();
      player.current?.play("bell");
      setTimeout(() => player.current?.play("clack"), 1500);
    }, [wake]),
    /** Write down what is no act of the clock. */
    happened: useCallback(
      (kind: Parameters<Happened>[0], more?: Record<string, string>) =>
        happened(kind, position(latest.current, nowMs()), more),
      [happened],
    ),
    position: useCallback(() => position(latest.current, nowMs()), []),
    wake,
  };
}

/** The bell is one thing to a coach, and three to the player. */
const mutedOf = (muted: readonly string[]): string[] =>
  muted.flatMap((kind) => (kind === "bell" ? ["bell", "change", "end"] : [kind]));

/** Fetches all that is said in a run; true once it is here. */
function useVoice(plan: Plan, voice: Voice): boolean {
  const [ready, setReady] = useState(false);
  useEffect(() => {
    let over = false;
    void voice.fetch(Object.values(plan.speech)).then(() => !over && setReady(true));
    return () => {
      over = true;
    };
  }, [plan, voice]);
  return ready;
}
