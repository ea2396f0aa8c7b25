import { useEffect } from "react";
import { keptAwake } from "../domain/clock/steady";

/** The screen does not go dark while it is wanted. */
export function useScreenAwake(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const ask = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        const got = await navigator.wakeLock.request("screen");
        if (over) void got.release();
        else {
          lock = got;
          keptAwake(true);
          got.addEventListener?.("release", () => keptAwake(false));
        }
      } catch {
        // The browser may refuse on low battery; the clock does not depend on it.
      }
    };
    void ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      keptAwake(false);
      void lock?.release();
    };
  }, [wanted]);
}
