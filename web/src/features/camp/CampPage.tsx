import { useEffect, useRef, useState } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";
import { Keys } from "../../ui/Keys";
import { CAMP, useKeys, WEEK } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { Progress } from "../../ui/Progress";
import { Board } from "./Board";
import { CampForm } from "./CampForm";
import { Clash } from "./Clash";
import { MARK_WORDS, MarkShape } from "./Marks";
import { MoveBout } from "./MoveBout";
import { AddPiece, PieceSheet } from "./PieceSheet";
import {
  added,
  type Camp,
  changed,
  daysBetween,
  ladderOf,
  moved,
  reached,
  repeated,
  type State,
  shortDay,
  titleOf,
  weekOf,
  without,
} from "./plan";
import { Rules } from "./Rules";
import { SendOutCamp } from "./SendOutCamp";
import { type Solved, useSolving } from "./solving";
import { useCamp } from "./useCamp";
import { WeekPanel } from "./WeekPanel";

type Open = "asked" | "bout" | "out" | null;

/** A camp: its score, the week in hand, and what its rules say. */
export function CampPage() {
  const id = Number(useParams().campId);
  const kept = useCamp(id);
  if (!kept.camp) {
    return kept.query.error ? (
      <Notice title="This camp cannot be opened" text={kept.query.error.message}>
        <Link className="act main" to="/camp">
          Go to the camps
        </Link>
      </Notice>
    ) : (
      <Notice asked={kept.query} title="Opening the camp" />
    );
  }
  return <Opened key={id} kept={kept} camp={kept.camp} />;
}

function Opened({ kept, camp }: { kept: ReturnType<typeof useCamp>; camp: Camp }) {
  const place = useLocation();
  const navigate = useNavigate();
  const solving = useSolving(camp.id);
  const [open, setOpen] = useState<Open>(null);
  const [piece, setPiece] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [adding, setAdding] = useState<string | null>(null);
  const [clash, setClash] = useState<{ solved: Solved; asked: State["asked"] } | null>(null);
  const [week, setWeek] = useState(() => weekOf(camp, camp.today)?.number ?? 1);
  const close = () => setOpen(null);
  const hold = camp.hold;

  function solve(asked = camp.asked) {
    solving.run({ asked, hold }, (found) => {
      if (found.status === "impossible") setClash({ solved: found, asked });
      else kept.change({ asked, placed: found.placed, hold }, found);
    });
  }
  const first = useRef((place.state as { solve?: boolean } | null)?.solve === true && camp.placed.length === 0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, where the form has sent us here
  useEffect(() => {
    if (!first.current) return;
    first.current = false;
    navigate(place.pathname, { replace: true, state: null });
    solve();
  }, []);

  const move = (uid: string, on: string) => {
    kept.change((state) => moved(state, uid, on));
    const there = weekOf(camp, on);
    if (there) setWeek(there.number);
  };
  const turn = (uid: string, by: 1 | -1) => {
    const one = camp.placed.find((each) => each.uid === uid);
    const steps = one && ladderOf(camp, one.purpose)?.steps.length;
    if (!one || one.step === null || !steps) return;
    const step = Math.min(steps - 1, Math.max(0, one.step + by));
    if (step !== one.step) kept.change((state) => changed(state, uid, { step }));
  };
  const lock = (uid: string) => {
    const one = camp.placed.find((each) => each.uid === uid);
    if (one) kept.change((state) => changed(state, uid, { locked: !one.locked }));
  };
  const drop = (uid: string) => {
    setPiece(null);
    kept.change((state) => without(state, uid));
  };
  useKeys(CAMP, {
    solve: () => solve(),
    bout: () => camp.asked.bout_on && setOpen("bout"),
    asked: () => setOpen("asked"),
    sendOut: () => setOpen("out"),
    print: () => window.print(),
    undo: kept.undo,
    redo: kept.redo,
  });
  const title = titleOf({ weeks: camp.weeks.length, bout_on: camp.asked.bout_on ?? null });
  const inHand = camp.weeks.find((each) => each.number === week) ?? camp.weeks[0];
  const opened = camp.placed.find((each) => each.uid === piece);
  return (
    <main className="px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-end justify-between gap-3 pb-3">
        <div>
          <h1>{title}</h1>
          <p className="quiet">
            for <b>{camp.who}</b>
            {standsAt(camp)}
          </p>
        </div>
        <div className="flex flex-wrap gap-2 print:hidden">
          <button type="button" className="act" disabled={!kept.undo} onClick={kept.undo}>
            Undo
          </button>
          <button type="button" className="act" onClick={() => setOpen("asked")}>
            <span>
              <u>A</u>sked
            </span>
          </button>
          {camp.asked.bout_on && (
            <button type="button" className="act" onClick={() => setOpen("bout")}>
              <span>
                <u>M</u>ove bout
              </span>
            </button>
          )}
          <button type="button" className="act" onClick={() => setOpen("out")}>
            <span>
              Send <u>o</u>ut
            </span>
          </button>
          <button type="button" className="act main" disabled={solving.progress !== null} onClick={() => solve()}>
            <span>
              <u>S</u>olve{camp.placed.length > 0 && " the rest"}
            </span>
          </button>
        </div>
      </header>
      <Told kept={kept} camp={camp} solving={solving} />
      {camp.placed.length > 0 && (
        <div className="max-[899px]:hidden print:block">
          <Legend />
          <Board camp={camp} chosenWeek={week} onWeek={setWeek} onOpen={setPiece} onMove={move} />
        </div>
      )}
      {camp.placed.length === 0 && solving.progress === null && (
        <p className="ink-t py-4">Nothing is planned yet. Solve the weeks, or add sessions by hand below.</p>
      )}
      {inHand && (
        <WeekPanel
          camp={camp}
          week={inHand}
          chosen={chosen}
          onChoose={setChosen}
          onOpen={setPiece}
          onAdd={setAdding}
          onMove={move}
          onTurn={turn}
          onLock={lock}
          onDrop={drop}
          onWeek={setWeek}
        />
      )}
      {camp.placed.length > 0 && (
        <Rules
          camp={camp}
          waiting={kept.waiting}
          onApply={(placed) => kept.change((state) => ({ ...state, placed }))}
        />
      )}
      <p className="flex flex-wrap items-center gap-x-4 pt-4 print:hidden">
        <Keys places={[CAMP, WEEK]} />
        <Link className="link min-h-[30px]" to="/camp">
          All camps
        </Link>
      </p>
      {opened && (
        <PieceSheet
          camp={camp}
          placed={opened}
          onChange={(change) => kept.change((state) => changed(state, opened.uid, change))}
          onMove={(on) => move(opened.uid, on)}
          onDrop={() => drop(opened.uid)}
          onRepeat={() => kept.change(() => repeated(camp, opened.uid))}
          onClose={() => setPiece(null)}
        />
      )}
      {adding && (
        <AddPiece
          camp={camp}
          on={adding}
          stepOf={(purpose) => reached(camp, purpose, adding)}
          onAdd={(told) => kept.change((state) => added(state, told))}
          onClose={() => setAdding(null)}
        />
      )}
      {open === "asked" && (
        <CampForm
          title="What is asked of the weeks"
          word="Solve with it"
          asked={camp.asked}
          busy={false}
          error={solving.error}
          onDone={(asked) => {
            close();
            solve(asked);
          }}
          onClose={close}
        />
      )}
      {open === "bout" && (
        <MoveBout
          camp={camp}
          onTake={(state, solved) => {
            close();
            kept.change(state, solved);
          }}
          onClash={(solved) => setClash({ solved, asked: camp.asked })}
          onClose={close}
        />
      )}
      {open === "out" && <SendOutCamp camp={camp} title={title} onClose={close} />}
      {clash && (
        <Clash
          clash={clash.solved.clash}
          onSoften={(rule) => {
            setClash(null);
            close();
            solve({ ...clash.asked, softened: [...(clash.asked.softened ?? []), rule] });
          }}
          onClose={() => setClash(null)}
        />
      )}
    </main>
  );
}

/** Where today stands in it, in words. */
function standsAt(camp: Camp): string {
  const now = weekOf(camp, camp.today);
  const bout = camp.asked.bout_on;
  const out = bout ? daysBetween(camp.today, bout) : null;
  const words = [
    now
      ? `today is ${shortDay(camp.today)} of week ${now.number}`
      : camp.today < camp.asked.start
        ? `begins ${shortDay(camp.asked.start)}`
        : "it is over",
    out !== null && out > 0 ? `${out} days out` : "",
  ];
  return `: ${words.filter(Boolean).join(", ")}.`;
}

function Legend() {
  const marks = ["lactic", "sprint", "aerobic", "bout", "test"] as const;
  return (
    <p className="quiet flex flex-wrap items-center justify-end gap-x-4 pb-1 text-[12px]">
      {marks.map((mark) => (
        <span key={mark} className="flex items-center gap-1">
          <MarkShape mark={mark} /> {MARK_WORDS[mark]}
        </span>
      ))}
      <span className="flex items-center gap-1">
        <span className="dots block h-[11px] w-[11px] border border-[var(--ink)]" /> skill
      </span>
      <span className="flex items-center gap-1">
        <span className="block h-[11px] w-[11px] bg-[var(--ink)]" /> done
      </span>
      <span className="flex items-center gap-1">
        <span className="block h-[11px] w-[11px] border border-[var(--ink)] bg-[var(--sheet)]" /> planned
      </span>
      <span className="flex items-center gap-1">
        <span className="block h-[11px] w-[11px] border border-b-[4px] border-[var(--ink)] bg-[var(--sheet)]" /> locked
      </span>
    </p>
  );
}

/** What is going on: solving, off line, refused; how good the plan is. */
function Told({
  kept,
  camp,
  solving,
}: {
  kept: ReturnType<typeof useCamp>;
  camp: Camp;
  solving: ReturnType<typeof useSolving>;
}) {
  return (
    <div aria-live="polite">
      {solving.progress && <Progress {...solving.progress} onStop={solving.stop} />}
      {solving.error && (
        <p role="alert" className="py-1">
          <span className="seal">Not done</span> {solving.error.message}
        </p>
      )}
      {kept.fault && (
        <p role="alert" className="py-1">
          <span className="seal">Not done</span> {kept.fault.message}
        </p>
      )}
      {kept.away && (
        <p className="py-1">
          <span className="seal">Off line</span> Your change is kept here and sent as soon as there is a connection.
        </p>
      )}
      {Object.entries(camp.without).map(([purpose, why]) => (
        <p key={purpose} className="quiet py-1 text-[13px]">
          <span className="seal light">Without</span> {purpose.replaceAll("-", " ")}: {why}.
        </p>
      ))}
      {!solving.progress && camp.placed.length > 0 && <p className="quiet text-[13px]">{solvedWords(camp)}</p>}
    </div>
  );
}

function solvedWords({ bound_gap }: Camp): string {
  if (bound_gap === null) return "Pushed about by hand since it was solved.";
  if (bound_gap === 0) return "As it was solved: proven best for what is asked.";
  return `As it was solved: within ${(100 * bound_gap).toFixed(1)} % of the best that can be.`;
}
