import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { CuePlayer } from "../clock/cuePlayer";
import { keepRun, recallRun } from "../clock/keptRun";
import { end, isRunning, jump, newRun, nowMs, pause, position, type Run, resume } from "../clock/run";
import { backTo, skipTo } from "../clock/view";

type Plan = Schemas["RunPlan"];

/** The floor clock: every act is written to this device before it is shown. */
export function useRun(plan: Plan) {
  const [run, setRun] = useState<Run>(
    () => recallRun(plan.session_id)?.run ?? newRun(crypto.randomUUID(), plan.count_in_s),
  );
  const [at, setAt] = useState(() => position(run, nowMs()));
  const [sound, setSound] = useState(true);
  const [audible, setAudible] = useState(false);
  const latest = useRef(run);
  const player = useRef<CuePlayer | null>(null);

  const write = useCallback(
    (next: Run) => {
      latest.current = next;
      keepRun({ plan, run: next });
      setRun(next);
      setAt(position(next, nowMs()));
    },
    [plan],
  );
  const act = useCallback(
    (change: (run: Run, now: number) => Run) => {
      write(change(latest.current, nowMs()));
      player.current?.replan();
    },
    [write],
  );

  const wake = useCallback(async () => {
    player.current ??= new CuePlayer(plan.cues, () =>
      isRunning(latest.current) ? position(latest.current, nowMs()) : null,
    );
    await player.current.wake();
    setAudible(player.current.audible);
  }, [plan]);

  useEffect(
    () => () => {
      player.current?.close();
      player.current = null;
    },
    [],
  );
  useEffect(() => player.current?.mute(!sound), [sound]);

  const running = isRunning(run);
  useEffect(() => {
    if (!running) return;
    let frame = 0;
    const show = () => {
      const here = position(latest.current, nowMs());
      if (here >= plan.total_s && latest.current.endedAtMs === null) {
        // Not replanned: the last bell is still ringing.
        write(end(latest.current, nowMs(), plan.total_s));
        return;
      }
      setAt(here);
      frame = requestAnimationFrame(show);
    };
    frame = requestAnimationFrame(show);
    return () => cancelAnimationFrame(frame);
  }, [running, plan, write]);

  useScreenAwake(running);

  return {
    run,
    at,
    running,
    sound,
    audible,
    toggle: useCallback(() => {
      void wake();
      act((now_, ms) => (isRunning(now_) ? pause(now_, ms, plan.total_s) : resume(now_, ms, plan.total_s)));
    }, [act, wake, plan]),
    skip: useCallback(
      () => act((now_, ms) => jump(now_, ms, plan.total_s, skipTo(plan.timeline, position(now_, ms)))),
      [act, plan],
    ),
    back: useCallback(
      () => act((now_, ms) => jump(now_, ms, plan.total_s, backTo(plan.timeline, position(now_, ms)))),
      [act, plan],
    ),
    finish: useCallback(() => act((now_, ms) => end(now_, ms, plan.total_s)), [act, plan]),
    switchSound: useCallback(() => {
      void wake();
      setSound((on) => !on);
    }, [wake]),
    wake,
  };
}

function useScreenAwake(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const ask = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        const got = await navigator.wakeLock.request("screen");
        if (over) void got.release();
        else lock = got;
      } catch {
        // The browser may refuse on low battery; the clock does not depend on it.
      }
    };
    void ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [wanted]);
}
