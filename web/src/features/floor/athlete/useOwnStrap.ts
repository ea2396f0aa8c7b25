import { useCallback, useEffect, useReducer, useRef, useState } from "react";
import { shelf } from "../../../domain/device/shelf";
import { BluetoothStrap } from "../../../domain/devices/bluetooth";
import { Watch } from "../../../domain/devices/watch";

type Heart = [number, number][];

const hearts = shelf<Heart>("own-heart", 1, (value) => (Array.isArray(value) ? (value as Heart) : null));

export const heartOf = (runId: string): Heart => hearts.get(runId) ?? [];
export const forgetHeart = (runId: string): void => hearts.remove(runId);

const KEPT_EVERY_MS = 2000;

/** The athlete's own strap, where they wear one and their browser can find it; what it tells is kept on this device. */
export function useOwnStrap(runId: string, position: () => number, running: boolean) {
  const [, show] = useReducer((count: number) => count + 1, 0);
  const [failed, setFailed] = useState(false);
  const latest = useRef({ position, running });
  latest.current = { position, running };
  const [watch] = useState(
    () =>
      new Watch(() => (latest.current.running ? latest.current.position() : null), {
        strike: () => {},
        strap: () => {},
        changed: show,
        keep: (_place, { heart }) => void hearts.set([...heartOf(runId), ...heart], runId),
      }),
  );
  useEffect(() => {
    const keeping = setInterval(() => watch.write(), KEPT_EVERY_MS);
    const looking = setInterval(() => watch.look(), 1000);
    const last = () => watch.write();
    window.addEventListener("pagehide", last);
    return () => {
      clearInterval(keeping);
      clearInterval(looking);
      window.removeEventListener("pagehide", last);
      watch.stop();
    };
  }, [watch]);
  const find = useCallback(async () => {
    setFailed(false);
    await watch.strap(0, new BluetoothStrap()).catch(() => setFailed(true));
    show();
  }, [watch]);
  const heart = watch.heart(0);
  const told = heart?.bpm && heart.state === "on" ? `${heart.bpm} a minute` : "Strap lost: find it";
  return {
    possible: "bluetooth" in navigator,
    words: failed ? "No strap found: try again" : heart ? told : "Connect a strap",
    find,
    write: useCallback(() => watch.write(), [watch]),
  };
}
