import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { classNeeds, whatIfs } from "../../api/queries";
import { clock, day } from "../../domain/time";
import { Keys } from "../../ui/Keys";
import { CLASS, useKeys } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { Progress } from "../../ui/Progress";
import { AskedForm } from "./AskedForm";
import { Grid } from "./Grid";
import { PersonSheet, type Way } from "./PersonSheet";
import { type Kept, letGo, shuffled, withComer } from "./plan";
import { SendOutClass } from "./SendOutClass";
import { SetUp } from "./SetUp";
import { Side } from "./Side";
import { useClass } from "./useClass";

/** A class: who is where in each wave, what each gets, and what might change. */
export function ClassPage() {
  const id = Number(useParams().classId);
  const plan = useClass(id);
  if (!plan.kept) {
    return plan.query.error ? (
      <Notice title="This class cannot be opened" text={plan.query.error.message}>
        <Link className="act main" to="/class">
          Go to the classes
        </Link>
      </Notice>
    ) : (
      <Notice asked={plan.query} title="Opening the class" />
    );
  }
  return <Opened key={id} plan={plan} kept={plan.kept} />;
}

function Opened({ plan, kept }: { plan: ReturnType<typeof useClass>; kept: Kept }) {
  const navigate = useNavigate();
  const needs = useQuery(classNeeds);
  const [chosen, setChosen] = useState(0);
  const [wave, setWave] = useState(1);
  const [way, setWay] = useState<Way | null>(null);
  const [open, setOpen] = useState<"asked" | "out" | null>(null);
  const { asked, answer } = kept;
  const comer = asked.people[chosen];
  const might = useQuery({
    ...whatIfs(kept.id, kept.revision, { asked, rows: answer?.rows ?? null }),
    enabled: answer !== null && !plan.busy,
  });
  const apply = (at: number) => {
    const found = might.data?.[at];
    if (found?.asked && found.rows && !plan.busy) void plan.take({ asked: found.asked, rows: found.rows });
  };
  const count = asked.people.length;
  const run = () => navigate(`/floor/${kept.session_id}`);
  const absent = () => {
    if (comer) plan.change(withComer(asked, comer.uid, { absent_after: comer.absent_after === 0 ? null : 0 }));
  };
  useKeys(CLASS, {
    up: () => setChosen((at) => (at + count - 1) % count),
    down: () => setChosen((at) => (at + 1) % count),
    before: () => setWave((at) => Math.max(1, at - 1)),
    after: () => setWave((at) => Math.min(answer?.waves.length ?? 1, at + 1)),
    move: () => setWay("move"),
    swap: () => setWay("swap"),
    absent: () => !plan.busy && absent(),
    late: () => setWay("late"),
    pair: () => setWay("pair"),
    letGo: () => comer && !plan.busy && plan.change(letGo(asked, comer.uid)),
    shuffle: () => !plan.busy && plan.change(shuffled(asked, kept.revision)),
    first: () => apply(0),
    second: () => apply(1),
    third: () => apply(2),
    fourth: () => apply(3),
    asked: () => setOpen("asked"),
    sendOut: () => setOpen("out"),
    print: () => window.open(`/api/classes/${kept.id}/wall`, "_blank"),
    run,
    undo: plan.undo,
    redo: plan.redo,
  });
  const when = asked.on ? `, ${day(asked.on)}${asked.at ? ` at ${asked.at.slice(0, 5)}` : ""}` : "";
  const limit = 60 * asked.minutes;
  return (
    <main className="px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3 pb-3">
        <div className="min-w-0">
          <h1 className="[overflow-wrap:anywhere]">{asked.title || titleOf(kept)}</h1>
          <p className="quiet">
            {kept.group && (
              <>
                for <b>{kept.group}</b>
                {when}.{" "}
              </>
            )}
            {!kept.group && when && `${when.slice(2)}. `}
            {count} people, {asked.bags} bags
            {asked.pad_pairs ? `, ${asked.pad_pairs} pairs of pads` : ""}
          </p>
        </div>
        {answer && (
          <p className="text-[13px]">
            <span className="label-text block">Time</span>
            <b>{clock(answer.total_s)}</b> of {clock(limit)}
            <span className="mt-1 block h-[6px] w-[96px] border border-[var(--ink)]">
              <span
                className="block h-full bg-[var(--ink)]"
                style={{ width: `${Math.min(100, (100 * answer.total_s) / limit)}%` }}
              />
            </span>
            {answer.total_s > limit && <span className="seal">Over</span>}
          </p>
        )}
        <div className="flex flex-wrap gap-2 print:hidden">
          <button type="button" className="act" disabled={!plan.undo} onClick={plan.undo}>
            Undo
          </button>
          <button type="button" className="act" onClick={() => setOpen("asked")}>
            <span>
              <u>A</u>sked
            </span>
          </button>
          <button
            type="button"
            className="act"
            disabled={plan.busy}
            onClick={() => plan.change(shuffled(asked, kept.revision))}
          >
            <span>
              Shu<u>f</u>fle pairs
            </span>
          </button>
          <button type="button" className="act" onClick={() => setOpen("out")}>
            <span>
              Send <u>o</u>ut
            </span>
          </button>
          <button type="button" className="act main" disabled={!answer} onClick={run}>
            <span>
              <u>R</u>un
            </span>
          </button>
        </div>
      </header>
      <div aria-live="polite">
        {plan.solving.progress && <Progress {...plan.solving.progress} onStop={plan.solving.stop} />}
        {plan.fault && (
          <p role="alert" className="py-1">
            <span className="seal">Not done</span> {plan.fault.message}
          </p>
        )}
      </div>
      {answer ? (
        <div className="ink-t grid gap-x-5 gap-y-4 min-[1100px]:grid-cols-[minmax(0,1fr)_316px]">
          <div className="min-w-0 pt-2">
            <Grid
              kept={kept}
              answer={answer}
              chosen={chosen}
              wave={wave}
              onChoose={(place, at) => {
                setChosen(place);
                if (at) setWave(at);
              }}
              onOpen={(place, at) => {
                setChosen(place);
                setWave(at);
                setWay("all");
              }}
            />
            <SetUp kept={kept} answer={answer} onChange={plan.change} />
            <p className="flex flex-wrap items-center gap-x-4 pt-3 print:hidden">
              <Keys places={[CLASS]} />
              <Link className="link min-h-[30px]" to="/class">
                All classes
              </Link>
            </p>
          </div>
          <Side answer={answer} might={might} busy={plan.busy} onApply={apply} />
        </div>
      ) : (
        <Notice title="This class does not hold any more" text={kept.broken}>
          <button
            type="button"
            className="act main"
            disabled={plan.busy}
            onClick={() => plan.change({ ...asked, put: [] })}
          >
            Solve it again
          </button>
          <button type="button" className="act" onClick={() => setOpen("asked")}>
            Change what is asked
          </button>
        </Notice>
      )}
      {way && comer && answer && (
        <PersonSheet
          kept={kept}
          answer={answer}
          place={chosen}
          wave={wave}
          way={way}
          onWave={setWave}
          onChange={(next) => {
            setWay(null);
            plan.change(next);
          }}
          onClose={() => setWay(null)}
        />
      )}
      {open === "asked" && needs.data && (
        <AskedForm
          asked={asked}
          needs={needs.data}
          word="Solve with it"
          onDone={(next) => {
            setOpen(null);
            plan.change(next);
          }}
          onClose={() => setOpen(null)}
        />
      )}
      {open === "out" && (
        <SendOutClass kept={kept} title={asked.title || titleOf(kept)} onClose={() => setOpen(null)} />
      )}
    </main>
  );
}

function titleOf(kept: Kept): string {
  return `${kept.answer?.school_name ?? "Class"}${kept.group ? `, ${kept.group}` : ""}`;
}
