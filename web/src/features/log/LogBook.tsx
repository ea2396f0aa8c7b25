import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { log as logQuery } from "../../api/queries";
import { waitingRuns } from "../../domain/clock/keptRun";
import { nowMs } from "../../domain/clock/steady";
import { useOutbox } from "../../domain/outbox/useOutbox";
import { clock, when } from "../../domain/time";
import { Notice } from "../../ui/Notice";
import { RPE_WORDS } from "../../ui/rpe";
import { LogShelves } from "../../ui/Shelves";
import { useTrains } from "../../ui/useTrains";
import { ByHand } from "./ByHand";
import { Letters } from "./Letters";
import { SentBack } from "./SentBack";

/** What was done, beside what was planned, newest first. */
export function LogBook() {
  const query = useInfiniteQuery(logQuery);
  const entries = query.data?.pages.flatMap(({ items }) => items);
  const [runs] = useState(() => waitingRuns(nowMs()));
  const returned = useOutbox().flatMap(({ entry, refusal, runId }) => (entry && refusal ? [runId] : []));
  // What has come back is told once, with its reason.
  const waiting = runs.filter(({ run }) => !returned.includes(run.runId));
  const lost = query.failureCount > 0;
  const trains = useTrains();
  const [byHand, setByHand] = useState(false);
  const [logged, setLogged] = useState<number | null>(null);
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1>Log</h1>
        <button type="button" className="act" onClick={() => setByHand(true)}>
          Log without a run
        </button>
      </div>
      <LogShelves />
      {logged !== null && (
        <p role="status" className="pt-3">
          <span className="tick">✓</span> Logged for {logged}.
        </p>
      )}
      {byHand && (
        <ByHand
          onDone={(count) => {
            setByHand(false);
            setLogged(count);
          }}
          onClose={() => setByHand(false)}
        />
      )}
      {waiting.map(({ plan, run }) => (
        <p key={run.runId} className="flex flex-wrap items-center gap-3 border-b border-[var(--rule)] py-3">
          <span className="seal">{run.endedAtMs === null ? "Held" : "To log"}</span>
          <b>{plan.title}</b>
          <span className="quiet">
            {run.endedAtMs === null ? "is still on the floor" : "has ended and is not logged yet"}
          </span>
          <Link
            className="act main"
            to={run.endedAtMs === null ? `/floor/${plan.session_id}` : `/log/run?run=${run.runId}`}
          >
            {run.endedAtMs === null ? "Back to the floor" : "Log it"}
          </Link>
        </p>
      ))}
      <Letters />
      {trains && <SentBack />}
      {!entries ? (
        <p className="quiet py-3" role="status">
          {lost ? "No connection: what was logged before is shown when there is one." : "Opening the log …"}
        </p>
      ) : entries.length === 0 ? (
        <Notice title="Nothing logged yet" text="Run a session on the floor; at its end it lands here.">
          <Link className="act main" to="/library">
            Choose a session
          </Link>
        </Notice>
      ) : (
        <ul>
          {entries.map((entry) => (
            <Entry key={entry.id} entry={entry} />
          ))}
        </ul>
      )}
      {query.hasNextPage && (
        <p className="py-3">
          <button
            type="button"
            className="act"
            disabled={query.isFetchingNextPage}
            onClick={() => void query.fetchNextPage()}
          >
            {query.isFetchingNextPage ? "Reading …" : "Older entries"}
          </button>
        </p>
      )}
    </main>
  );
}

function Entry({ entry }: { entry: Schemas["LogOut"] }) {
  const trains = useTrains();
  const short = entry.done_efforts < entry.planned_efforts;
  return (
    <li className="grid gap-x-6 gap-y-1 border-b border-[var(--rule)] py-3 min-[900px]:grid-cols-[1fr_300px_1fr]">
      <div>
        <h3>
          <Link className="hover:underline" to={`/log/${entry.id}`}>
            {entry.title}
          </Link>
        </h3>
        <p className="quiet text-[13px]">
          {entry.person ?? "Nobody in particular"}, {when(entry.started_at)}
          {entry.simulated ? " · simulated for the demo" : entry.devices_simulated && " · with simulated devices"}
          {entry.session_id && trains && (
            <>
              {" · "}
              <Link className="link" to={`/bench/${entry.session_id}`}>
                on the bench
              </Link>
            </>
          )}
        </p>
      </div>
      <Bars entry={entry} />
      <div>
        <p>
          <b>{entry.rpe}</b> {RPE_WORDS[entry.rpe]}, expected {Math.round(entry.planned_rpe)}.{" "}
          {short ? (
            <span>
              <span className="seal">Short</span> {entry.done_efforts} of {entry.planned_efforts} efforts
            </span>
          ) : (
            <span className="tick">✓ Done</span>
          )}
        </p>
        <p className="quiet text-[13px]">
          {entry.counted_strikes === null
            ? `About ${Math.round(entry.expected_strikes)} strikes expected`
            : `${entry.counted_strikes} strikes counted, about ${Math.round(entry.expected_strikes)} expected`}
        </p>
        <Faded fades={entry.done?.fades ?? []} />
        {entry.pain.length > 0 && (
          <p className="text-[13px]">
            <span className="seal">Pain</span> {entry.pain.map((flag) => flag.text).join(", ")}
          </p>
        )}
        {entry.overruled.length > 0 && (
          <p className="text-[13px]">
            <span className="seal light">{entry.overruled.join(", ")}</span> Run past this stop, seen by the coach
          </p>
        )}
        {entry.unwell_at_s.map((at) => (
          <p key={at} className="text-[13px]">
            <span className="seal">Unwell</span> Somebody was unwell at {clock(at)}
          </p>
        ))}
        {entry.note && <p className="quiet text-[13px]">{entry.note}</p>}
      </div>
    </li>
  );
}

/** Less than this is within error. Own setting. */
const TOLD_FROM = 0.05;

/** The part that faded most, where one did. */
function Faded({ fades }: { fades: Schemas["PartFade"][] }) {
  const worst = fades.toSorted((a, b) => (b.measured ?? 0) - (a.measured ?? 0))[0];
  if (!worst || (worst.measured ?? 0) < TOLD_FROM) return null;
  return (
    <p className="quiet text-[13px]">
      Fade {Math.round(100 * (worst.measured ?? 0))} % over {worst.rounds} rounds, about{" "}
      {Math.round(100 * worst.expected)} % expected
    </p>
  );
}

/** Planned as outline, done as ink. */
function Bars({ entry }: { entry: Schemas["LogOut"] }) {
  const rows = [
    { name: "Time", plan: entry.planned_s, done: entry.done_s, show: clock },
    { name: "Load", plan: entry.planned_load, done: entry.load, show: (value: number) => String(Math.round(value)) },
  ];
  return (
    <div className="grid gap-[3px] self-center text-[13px]">
      {rows.map((row) => {
        const most = Math.max(row.plan, row.done, 1);
        return (
          <div key={row.name} className="grid grid-cols-[40px_1fr_104px] items-center gap-2">
            <span className="quiet">{row.name}</span>
            <span className="relative block h-[12px]">
              <span
                className="absolute inset-y-0 left-0 bg-[var(--ink)]"
                style={{ width: `${(100 * row.done) / most}%` }}
              />
              <span
                className="absolute inset-y-0 left-0 border border-[var(--rule-2)]"
                style={{ width: `${(100 * row.plan) / most}%` }}
              />
            </span>
            <span className="text-right">
              <b>{row.show(row.done)}</b> <span className="quiet">of {row.show(row.plan)}</span>
            </span>
          </div>
        );
      })}
    </div>
  );
}
