import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { mindToday, today as todayQuery } from "../../api/queries";
import { SmallScore } from "../../charts/score/SmallScore";
import { once } from "../../domain/once";
import { clock, day as dayWords, today as todayHere } from "../../domain/time";
import type { ToPlan } from "../../domain/toPlan";
import { BenchLink } from "../../ui/BenchLink";
import { TODAY, useKeys } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { useTrains } from "../../ui/useTrains";
import { DayScore } from "./DayScore";
import { minutesOf, nextOf, untilThen } from "./hours";
import { Mind } from "./Mind";
import { PlanOne } from "./PlanOne";
import { Waiting } from "./Waiting";
import { Week } from "./Week";

type Planned = Schemas["PlannedOut"];
type PlanIn = Schemas["PlanIn"];

const minuteOfDay = (): number => {
  const now = new Date();
  return 60 * now.getHours() + now.getMinutes();
};

/** Minutes since midnight by this device, counted on. */
function useNow(): number {
  const [now, setNow] = useState(minuteOfDay);
  useEffect(() => {
    const timer = setInterval(() => setNow(minuteOfDay()), 20_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

/** The day of the hall: its sessions at their hours, the next one under one key, and what to mind. */
export function Today() {
  const [on, setOn] = useState(todayHere);
  const query = useQuery(todayQuery(on));
  const trains = useTrains();
  const place = useLocation();
  const brought = (place.state as { plan?: ToPlan } | null)?.plan ?? null;
  const [asked, setPlanning] = useState(false);
  const planning = asked || brought !== null;
  const [gone, setGone] = useState<PlanIn | null>(null);
  const client = useQueryClient();
  const navigate = useNavigate();
  const closePlan = () => {
    setPlanning(false);
    if (brought) navigate(place.pathname, { replace: true, state: null });
  };
  const now = useNow();
  const refresh = () => askAnew(client, { queryKey: ["today"] });
  const takeOff = useMutation({
    mutationFn: ({ id, following }: { id: number; following: boolean }) =>
      need(api.DELETE("/api/planned/{planned_id}", { params: { path: { planned_id: id }, query: { following } } })),
    onSuccess: (plan) => {
      setGone(plan);
      return refresh();
    },
  });
  const bringBack = useMutation({
    mutationFn: (body: PlanIn) =>
      once(["plan again", body], (headers) => need(api.POST("/api/planned", { body, headers }))),
    onSuccess: () => {
      setGone(null);
      return refresh();
    },
  });
  const isToday = on === todayHere();
  const next = query.data && isToday ? nextOf(query.data.planned, now) : null;
  const run = () => next && navigate(`/floor/${next.session_id}`, { state: { who: next.people } });
  useKeys(TODAY, { run, plan: () => trains && setPlanning(true) });
  if (!query.data) return <Notice asked={query} title="Opening the day" />;
  const { planned, tomorrow, waiting, bring, week } = query.data;
  const people = new Set(planned.flatMap((row) => row.people.map(({ id }) => id))).size;
  const count = planned.length === 1 ? "One session" : `${planned.length} sessions`;
  return (
    <div className="min-[1100px]:grid min-[1100px]:min-h-dvh min-[1100px]:grid-cols-[1fr_316px]">
      <main className="min-w-0 px-4 pt-[18px] pb-8 min-[900px]:px-6">
        <header className="flex flex-wrap items-end justify-between gap-3 pb-4">
          <div>
            <h1>{heading(on)}</h1>
            <p className="quiet">
              {isToday ? "Today" : dayWords(on)}. {planned.length ? `${count}, ${people} people` : "Nothing planned"}
            </p>
          </div>
          <div className="flex flex-wrap items-end gap-2">
            <label className="label-text">
              <span className="sr-only">Another day</span>
              <input
                type="date"
                className="field"
                value={on}
                onChange={(event) => setOn(event.target.value || todayHere())}
              />
            </label>
            {trains && (
              <button type="button" className="act" onClick={() => setPlanning(true)}>
                <span>
                  <u>P</u>lan one
                </span>
              </button>
            )}
            {next && (
              <button type="button" className="act main" onClick={run}>
                <span>
                  <u>R</u>un the next
                </span>
              </button>
            )}
          </div>
        </header>
        {gone && (
          <p role="status" className="flex flex-wrap items-center gap-3 border-t border-[var(--rule)] py-2">
            Off the plan{gone.until ? ", with all that follow" : ""}.
            <button type="button" className="act" disabled={bringBack.isPending} onClick={() => bringBack.mutate(gone)}>
              Undo
            </button>
          </p>
        )}
        {planned.length > 0 ? (
          <>
            <DayScore planned={planned} now={isToday ? now : null} />
            <ul aria-label="Planned">
              {planned.map((row) => (
                <Row
                  key={row.id}
                  row={row}
                  next={row.id === next?.id}
                  until={isToday ? minutesOf(row.at) - now : null}
                  onTakeOff={trains ? (following) => takeOff.mutate({ id: row.id, following }) : null}
                />
              ))}
            </ul>
          </>
        ) : (
          <Empty trains={trains} onPlan={() => setPlanning(true)} />
        )}
        <Waiting waiting={waiting} />
        {tomorrow.length > 0 && (
          <p className="ink-t pt-3">
            <b className="quiet pr-3">The day after</b>
            {tomorrow.map((row) => `${row.at.slice(0, 5)} ${row.title}`).join(" · ")}
          </p>
        )}
      </main>
      <aside className="bg-[var(--sheet)] px-4 py-[18px] min-[1100px]:border-l min-[1100px]:border-[var(--rule)]">
        <Mind on={on} />
        {bring.length > 0 && (
          <section aria-label="Bring" className="rule-t mt-4 pt-3">
            <h2>Bring</h2>
            <ul>
              {bring.map((each) => (
                <li key={each.word} className="flex justify-between py-[2px]">
                  {each.word} <b>{each.count ?? ""}</b>
                </li>
              ))}
            </ul>
          </section>
        )}
        <Week week={week} on={on} />
        <p className="pt-3 text-[13px]">
          <a className="link inline-flex min-h-[30px] items-center" href="/api/records/planned" download>
            All that is planned, as a calendar file
          </a>
        </p>
      </aside>
      {planning && (
        <PlanOne
          on={on}
          brought={brought}
          onClose={closePlan}
          onDone={(first) => {
            closePlan();
            setOn(first);
            void refresh();
            void askAnew(client, { queryKey: mindToday(first, null).queryKey });
          }}
        />
      )}
    </div>
  );
}

/** A day as a heading: Thursday 14 May. */
const heading = (on: string): string =>
  new Date(`${on}T12:00`).toLocaleDateString([], { weekday: "long", day: "numeric", month: "long" });

interface RowProps {
  row: Planned;
  next: boolean;
  until: number | null;
  onTakeOff: ((following: boolean) => void) | null;
}

function Row({ row, next, until, onTakeOff }: RowProps) {
  const [asking, setAsking] = useState(false);
  const names = row.people.map(({ name }) => name);
  const who = row.group
    ? `${row.group}, ${names.length} people`
    : names.length > 3
      ? `${names.slice(0, 2).join(", ")} and ${names.length - 2} more`
      : names.join(", ") || "nobody named";
  return (
    <li
      className={`grid items-center gap-x-5 gap-y-2 px-2 py-4 min-[900px]:grid-cols-[64px_1fr_170px_150px] ${next ? "border border-[var(--ink)] bg-[var(--sheet)]" : "border-b border-[var(--rule)]"}`}
    >
      <b className="text-[20px]">{row.at.slice(0, 5)}</b>
      <div>
        <h2>
          <BenchLink sessionId={row.session_id}>{row.title}</BenchLink>
        </h2>
        <p className="text-[13px]" title={names.join(", ")}>
          {who} · {row.purpose} · {clock(row.total_s)}
          {row.repeats && " · every week"}
        </p>
        {next && until !== null && <p className="quiet text-[13px]">{capitalised(untilThen(until))}</p>}
      </div>
      <div className="h-[36px] max-[899px]:hidden">
        <SmallScore blocks={row.blocks} label={`${row.title}, ${clock(row.total_s)}, drawn small`} />
      </div>
      <div className="flex flex-wrap gap-2">
        {row.done ? (
          <p className="text-[13px]">
            <span className="tick">✓ Done</span>
            <br />
            {row.done.rpe.toFixed(1)} by {row.done.people}, expected {row.done.expected.toFixed(1)}
          </p>
        ) : (
          <Link
            className={`act ${next ? "main min-h-[52px] flex-1 text-[17px]" : ""}`}
            to={`/floor/${row.session_id}`}
            state={{ who: row.people }}
            aria-label={`Run ${row.title} at ${row.at.slice(0, 5)}`}
          >
            Run
          </Link>
        )}
        {onTakeOff &&
          (asking ? (
            <>
              <button type="button" className="act" onClick={() => onTakeOff(false)}>
                This one
              </button>
              {row.repeats && (
                <button type="button" className="act" onClick={() => onTakeOff(true)}>
                  And all after
                </button>
              )}
              <button type="button" className="act" onClick={() => setAsking(false)}>
                Keep it
              </button>
            </>
          ) : (
            <button
              type="button"
              className="link min-h-[30px] text-[13px] font-normal"
              aria-label={`Take off: ${row.title} at ${row.at.slice(0, 5)}`}
              onClick={() => (row.repeats ? setAsking(true) : onTakeOff(false))}
            >
              Take off
            </button>
          ))}
      </div>
    </li>
  );
}

const capitalised = (words: string): string => words[0]?.toUpperCase() + words.slice(1);

/** Three ways to begin. */
function Empty({ trains, onPlan }: { trains: boolean; onPlan: () => void }) {
  return (
    <Notice
      title="Nothing is planned for this day"
      text={
        trains
          ? "Plan a session of the library, type one on the bench, or let protocols be proposed."
          : "Run one from the library."
      }
    >
      {trains && (
        <button type="button" className="act main" onClick={onPlan}>
          Plan one
        </button>
      )}
      <Link className="act" to="/library">
        The library
      </Link>
      {trains && (
        <Link className="act" to="/bench">
          The bench
        </Link>
      )}
    </Notice>
  );
}
