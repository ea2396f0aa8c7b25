import { keepPreviousData, useQueries } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { onFloor } from "../../api/queries";
import { LETTERS, type Member, type Strap } from "../../domain/clock/crew";
import { BluetoothStrap } from "../../domain/devices/bluetooth";
import { SimulatedSensor, SimulatedStrap } from "../../domain/devices/simulated";
import type { State } from "../../domain/devices/source";
import { type Heart, Watch } from "../../domain/devices/watch";
import { keepLastTold, keepTold, toldOf } from "../../domain/outbox/told";

export interface Measured {
  /** What this session is for them; until it is there nothing is simulated and no band is drawn. */
  own: Schemas["OnFloor"] | undefined;
  /** Null where they wear no strap. */
  heart: Heart | null;
  strikes: number;
}

/** What was told since is lost where the page is killed. */
const KEPT_EVERY_MS = 1000;
const LOOK_EVERY_MS = 1000;

interface Given {
  /** None where the session is gone: then nothing is simulated, and no band is drawn. */
  sessionId: number | null;
  runId: string;
  crew: Member[];
  /** How often partners were swapped by hand. */
  shift: number;
  /** Where the session stands [s]. */
  position: () => number;
  /** While the clock is held nothing is written down. */
  running: boolean;
  onStrike: (place: number) => void;
  onStrap: (place: number, state: State) => void;
}

const before = (place: number, shift: number, of: number): number => (((place - shift) % of) + of) % of;

const dataOf = (answers: { data: Schemas["OnFloor"] | undefined }[]) => answers.map(({ data }) => data);

/** Everything that measures the people on the floor: started, watched, and written down as it tells. */
export function useDevices({ sessionId, runId, crew, shift, position, running, onStrike, onStrap }: Given) {
  const [, show] = useReducer((count: number) => count + 1, 0);
  const [failed, setFailed] = useState<string | null>(null);
  const latest = useRef({ position, running, onStrike, onStrap });
  latest.current = { position, running, onStrike, onStrap };
  const worn = useRef<Strap[]>([]);
  const [watch] = useState(
    () =>
      new Watch(() => (latest.current.running ? latest.current.position() : null), {
        strike: (place) => latest.current.onStrike(place),
        strap: (place, state) => latest.current.onStrap(place, state),
        changed: show,
        // A browser that keeps nothing costs the trace, not the run.
        keep: (place, fresh) => void keepTold({ runId, place, ...fresh }).catch(() => {}),
      }),
  );
  // A page that was loaded anew counts on from what was kept; a browser that keeps nothing counts from there.
  useEffect(() => {
    let over = false;
    void toldOf(runId, LETTERS.length)
      .then((kept) => {
        for (const [place, { strikes }] of kept.entries()) if (!over) watch.remember(place, strikes.length);
      })
      .catch(() => {});
    return () => {
      over = true;
    };
  }, [runId, watch]);
  // The clock is drawn at every frame: what is asked for is made anew only with the crew.
  const queries = useMemo(
    () =>
      crew.map(({ personId }, place) => ({
        // After a swap by hand they have the turns of the one before them.
        ...onFloor(sessionId ?? 0, before(place, shift, crew.length), crew.length, personId),
        placeholderData: keepPreviousData,
        enabled: sessionId !== null,
      })),
    [sessionId, crew, shift],
  );
  const own = useQueries({ queries, combine: dataOf });

  // What is simulated starts by itself as soon as it is known what to simulate.
  useEffect(() => {
    const stands = () => latest.current.position();
    LETTERS.forEach((_, place) => {
      const { strap, sensor } = crew[place] ?? { strap: "none", sensor: "none" };
      const told = own[place]?.simulated;
      if (strap === "simulated" && told) void watch.strap(place, new SimulatedStrap(told.heart, stands));
      if (strap === "none") watch.takeOff(place);
      // A page that was reloaded must ask for it again: until then it is lost.
      if (strap === "bluetooth" && worn.current[place] !== "bluetooth") watch.expect(place);
      worn.current[place] = strap;
      if (sensor === "simulated" && told) void watch.sensor(place, new SimulatedSensor(told.strikes, stands));
      if (sensor === "none") watch.noSensor(place);
    });
  }, [crew, own, watch]);

  useEffect(() => {
    const write = () => watch.write();
    const keeping = setInterval(write, KEPT_EVERY_MS);
    const looking = setInterval(() => watch.look(), LOOK_EVERY_MS);
    const last = () => watch.write((place, fresh) => keepLastTold({ runId, place, ...fresh }));
    window.addEventListener("pagehide", last);
    return () => {
      clearInterval(keeping);
      clearInterval(looking);
      window.removeEventListener("pagehide", last);
      watch.stop();
    };
  }, [watch, runId]);

  /** A strap by Bluetooth is looked for by a touch or a key: the browser asks which. */
  const find = useCallback(
    async (place: number) => {
      setFailed(null);
      try {
        await watch.strap(place, new BluetoothStrap());
      } catch (error) {
        const why = error instanceof Error ? error.message : String(error);
        setFailed(`No strap was found (${why}). Put it on, wet its pads, and try again.`);
      }
      show();
    },
    [watch],
  );
  const measured = crew.map(
    (_, place): Measured => ({ own: own[place], heart: watch.heart(place), strikes: watch.strikes(place) }),
  );
  return { measured, find, failed, write: useCallback(() => watch.write(), [watch]) };
}
