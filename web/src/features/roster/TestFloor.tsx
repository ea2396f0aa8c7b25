import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { personPage, rosterWords } from "../../api/queries";
import shared from "../../api/shared.json";
import { CuePlayer } from "../../domain/clock/cuePlayer";
import {
  COUNT_IN_S,
  COURSES,
  type Course,
  cuesOf,
  finished,
  fresh,
  gone_s,
  placesOf,
  stepped,
  type TestEvent,
  type TestState,
} from "../../domain/clock/fieldTest";
import { nowMs } from "../../domain/clock/steady";
import { shelf } from "../../domain/device/shelf";
import { BluetoothStrap, offersBluetooth } from "../../domain/devices/bluetooth";
import { clock } from "../../domain/time";
import { capital } from "../../ui/capital";
import { TEST, useKeys } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { Twice } from "../../ui/Twice";
import { useScreenAwake } from "../../ui/useScreenAwake";
import { Asked, Result } from "./TestResult";

const LOOK_EVERY_MS = 50;
const kept = shelf<TestState>("field-test", 1, (value) => value as TestState);

/** A field test on the floor: one clock, and the counts asked for as each part ends. */
export function TestFloor() {
  const { personId, kind = "" } = useParams();
  const query = useQuery(personPage(Number(personId)));
  const known = useQuery(rosterWords).data?.tests.find((each) => each.id === kind);
  const course = COURSES[kind];
  if (!query.data) return <Notice asked={query} title="Opening the test" />;
  const { person } = query.data;
  const back = (
    <Link className="act" to={`/roster/${person.id}`}>
      To {person.name}
    </Link>
  );
  if (!course) {
    return (
      <Notice title="This test is not run on the floor" text="Type its result on the page of the person.">
        {back}
      </Notice>
    );
  }
  if (person.knocked) {
    return (
      <Notice
        title="Nothing but rest"
        text={`${person.name} has had a knock to the head that no physician has cleared yet. There is no test until then.`}
      >
        {back}
      </Notice>
    );
  }
  return (
    <Running key={kind} person={person} kind={kind as Schemas["FieldTestIn"]["kind"]} course={course} known={known} />
  );
}

interface Props {
  person: Schemas["PersonOut"];
  kind: Schemas["FieldTestIn"]["kind"];
  course: Course;
  known: Schemas["FieldTestKindOut"] | undefined;
}

/** The state of a test, which a reload does not lose. */
function useTest(id: string, course: Course) {
  const [state, send] = useReducer(
    (before: TestState, event: TestEvent) => stepped(course, before, event),
    null,
    () => kept.get(id) ?? fresh(course),
  );
  useEffect(() => {
    kept.set(state, id);
  }, [state, id]);
  return [state, send] as const;
}

function Running({ person, kind, course, known }: Props) {
  const id = `${person.id} ${kind}`;
  const navigate = useNavigate();
  const [state, send] = useTest(id, course);
  const [, draw] = useReducer((count: number) => count + 1, 0);
  const stage = course.stages[state.stage];
  const over = finished(course, state);
  const on = state.zero_ms !== null && !state.asking && !over;
  useScreenAwake(on);
  const heart = useStrap((bpm) => send({ kind: "heart", now_ms: nowMs(), bpm }));

  const player = useRef<CuePlayer | null>(null);
  const zero = useRef(state.zero_ms);
  zero.current = on ? state.zero_ms : null;
  const cues = useMemo(() => (stage ? cuesOf(stage) : []), [stage]);
  useEffect(() => {
    player.current = new CuePlayer(cues, () => zero.current, nowMs);
    return () => player.current?.close();
  }, [cues]);
  useEffect(() => {
    if (!on) return;
    const timer = setInterval(() => {
      send({ kind: "look", now_ms: nowMs() });
      draw();
    }, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [on, send]);

  const begin = useCallback(() => {
    send({ kind: "begin", now_ms: nowMs() });
    // The next turn of the page knows when the stage begins.
    setTimeout(() => void player.current?.wake());
  }, [send]);
  const tap = useCallback(() => send({ kind: "tap", now_ms: nowMs() }), [send]);
  useKeys(TEST, { go: () => (on ? tap() : state.asking ? send({ kind: "next" }) : !over && begin()) });

  if (over) {
    const leave = () => {
      kept.remove(id);
      void navigate(`/roster/${person.id}`);
    };
    return <Result person={person} kind={kind} course={course} state={state} send={send} onKept={leave} />;
  }
  if (!stage) return null;
  const { first, many } = placesOf(course, state.stage);
  const gone = gone_s(state, nowMs());
  const left = gone < 0 ? Math.ceil(-gone) : Math.ceil(stage.seconds - gone);
  const counts = state.counts.slice(first, first + many);
  const open = counts.includes(null);
  return (
    <main className="grid min-h-dvh grid-rows-[auto_1fr_auto] px-4 py-4 min-[900px]:px-8">
      <header className="flex flex-wrap items-baseline justify-between gap-3">
        <div>
          <h1>{capital(known?.name ?? "")}</h1>
          <p className="quiet">
            {person.name}. Part {state.stage + 1} of {course.stages.length}: {stage.name}
          </p>
        </div>
        <Link className="act" to={`/roster/${person.id}`}>
          Leave
        </Link>
      </header>
      <div className="grid content-center justify-items-center gap-4 py-4 text-center">
        {state.asking ? (
          <Asked course={course} stage={state.stage} state={state} send={send} />
        ) : (
          <>
            <p role="timer" aria-label="Seconds left" className="font-[family-name:var(--font-head)]">
              <b className="block text-[clamp(96px,30vw,300px)] leading-none">
                {on && gone < 0 ? left : clock(on ? left : stage.seconds)}
              </b>
            </p>
            <p className="text-[20px] font-semibold" aria-live="polite">
              {on ? (gone < 0 ? "Get ready" : stage.name) : `Ready: ${stage.name}, counted in ${COUNT_IN_S} s`}
            </p>
            {!on && (
              <p className="max-w-[640px]">
                <b>Stop at once, and get help, for</b> {shared.stop_signs}.
              </p>
            )}
            {!on && person.limits.length > 0 && (
              <p>
                <span className="seal">Limit</span> {capital(person.limits.join("; "))}.
              </p>
            )}
            {!on && !person.screening && (
              <p>
                <span className="seal light">Form</span> There is no screening of {person.name}: ask before a test flat
                out.
              </p>
            )}
            {heart.bpm !== null && <p className="text-[28px]">{heart.bpm} bpm</p>}
            {on && course.tapped && gone >= 0 && (
              <p className="text-[28px]">{counts.reduce((sum: number, count) => sum + (count ?? 0), 0)} tapped</p>
            )}
          </>
        )}
      </div>
      <footer className="flex flex-wrap gap-3 pb-2">
        {state.asking ? (
          <>
            <button
              type="button"
              className="act main min-h-[64px] flex-[2] text-[20px]"
              disabled={open}
              onClick={() => send({ kind: "next" })}
            >
              {state.stage + 1 < course.stages.length ? "Next part" : "To the end"}
            </button>
            <Twice
              word="Do this part again"
              sure="Yes, its counts go"
              className="act min-h-[64px] flex-1"
              onDo={() => send({ kind: "again" })}
            />
          </>
        ) : on ? (
          <>
            {course.tapped && (
              <button
                type="button"
                className="act main min-h-[96px] flex-[2] touch-manipulation text-[24px]"
                onPointerDown={tap}
              >
                Tap each strike
              </button>
            )}
            <Twice
              word="Stop this part"
              sure="Yes, stop"
              className="act min-h-[64px] flex-1"
              onDo={() => send({ kind: "again" })}
            />
          </>
        ) : (
          <>
            <button type="button" className="act main min-h-[64px] flex-[2] text-[20px]" onClick={begin}>
              Begin
            </button>
            {course.strap && offersBluetooth() && (
              <button type="button" className="act min-h-[64px] flex-1" onClick={() => void heart.find()}>
                {heart.bpm === null ? "Find a strap" : "Another strap"}
              </button>
            )}
          </>
        )}
        {heart.failed && (
          <p role="alert" className="basis-full">
            {heart.failed}
          </p>
        )}
      </footer>
    </main>
  );
}

/** A heart-rate strap by Bluetooth, for the length of a test. */
function useStrap(onHeart: (bpm: number) => void) {
  const [bpm, setBpm] = useState<number | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const strap = useRef<BluetoothStrap | null>(null);
  const told = useRef(onHeart);
  told.current = onHeart;
  useEffect(() => () => strap.current?.stop(), []);
  const find = async () => {
    setFailed(null);
    strap.current?.stop();
    strap.current = new BluetoothStrap();
    try {
      await strap.current.start({
        heart: (read) => {
          setBpm(read);
          told.current(read);
        },
        state: (state) => state === "lost" && setBpm(null),
      });
    } catch (error) {
      setFailed(`No strap was found (${(error as Error).message}). Type what you count instead.`);
    }
  };
  return { bpm, failed, find };
}
