import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { askAnew } from "../../api/askAnew";
import type { Schemas } from "../../api/client";
import { EffortPicker } from "../../charts/effort/EffortPicker";
import { firstName, inPairs, ownEfforts } from "../../domain/clock/crew";
import { type KeptRun, markLogged, recallRunById, settled } from "../../domain/clock/keptRun";
import { logged } from "../../domain/clock/record";
import { effortsDone, played_s } from "../../domain/clock/run";
import { nowMs } from "../../domain/clock/steady";
import { planOf } from "../../domain/outbox/journal";
import { sendAll } from "../../domain/outbox/outbox";
import { readStrikes, type Written } from "../../domain/outbox/written";
import { clock } from "../../domain/time";
import { Keys } from "../../ui/Keys";
import { ENTRY, useKeys } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { RPE_WORDS } from "../../ui/rpe";
import { Stepper } from "../../ui/Stepper";
import { ClassLog } from "./ClassLog";
import { DoneScore } from "./DoneScore";
import { livedBy } from "./drawing";
import { PainFlags } from "./PainFlags";
import { Sums } from "./Sums";
import { UntimedRounds } from "./UntimedRounds";
import { useReviews } from "./useReviews";
import { useWritten } from "./useWritten";

/** After the run: how hard it was, what was done beside what was planned, a note. */
export function LogEntry() {
  const [search] = useSearchParams();
  const runId = search.get("run") ?? "";
  const [kept] = useState(() => recallRunById(runId));
  if (!kept?.run.startedAt || kept.logged) {
    return (
      <Notice title="No run waits for its log" text="It may have been logged already.">
        <Link className="act main" to="/log">
          Go to the log
        </Link>
      </Notice>
    );
  }
  const now = settled(kept, nowMs());
  const { board } = now.plan;
  return board ? <ClassLog kept={now} board={board} /> : <Entry kept={now} />;
}

/** Strikes that a real sensor noticed; what is simulated is no count. */
const sensedOf = (record: Schemas["RecordIn"] | undefined): number | null =>
  record?.simulated ? null : (record?.strikes?.length ?? null);

function Entry({ kept }: { kept: KeptRun }) {
  const { plan, run, crew } = kept;
  const client = useQueryClient();
  const navigate = useNavigate();
  const places = logged(crew);
  const [place, setPlace] = useState(places[0] ?? 0);
  const all = useWritten(run.runId, places);
  const written = all.of(place);
  const change = (part: Partial<Written>) => all.change(place, part);
  const [marking, setMarking] = useState(false);
  const [asked, setAsked] = useState<string | null>(null);
  const { reviews, reading } = useReviews(kept);
  const own = reviews[place];
  const done = own?.done ?? null;
  const heart = own?.record.heart ?? [];
  const name = crew[place]?.name ?? "";
  const played = played_s(run);
  const efforts = done?.efforts ?? plan.efforts.length;
  const countedOf = (each: number): number =>
    reviews[each]?.done?.efforts_done ?? effortsDone(run, ownEfforts(plan, run, each, crew.length));
  const effortsCounted = countedOf(place);
  const effortsWritten = Math.min(efforts, written.efforts ?? effortsCounted);
  const strikes = readStrikes(written.strikes) ?? done?.strikes ?? null;
  const wrongStrikes = written.strikes.trim() !== "" && readStrikes(written.strikes) === null;
  const rated = places.filter((each) => all.of(each).rpe !== null);
  const ready = rated.length > 0 && !wrongStrikes && !reading;

  const bodyOf = (each: number): Schemas["LogIn"] => {
    const review = reviews[each];
    const own = all.of(each);
    return {
      run: planOf(plan),
      person_id: review?.personId ?? null,
      started_at: run.startedAt ?? new Date().toISOString(),
      done_s: played,
      done_efforts: own.efforts ?? countedOf(each),
      rpe: own.rpe ?? 0,
      counted_strikes: readStrikes(own.strikes) ?? sensedOf(review?.record),
      note: own.note,
      record: review?.record ?? null,
      pain: own.pain,
    };
  };
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const path = `/api/runs/${run.runId}/log`;
      const letters = rated.map((each) => ({
        key: `log ${run.runId} ${each}`,
        path,
        body: bodyOf(each),
        title: plan.title,
        runId: run.runId,
        entry: true,
      }));
      for (const outcome of await sendAll(letters)) {
        if (outcome.kind === "refused") throw new Error(outcome.message);
      }
    },
    onSuccess: () => {
      // It has reached the server, or waits on this device; the run stays here until it is taken.
      markLogged(run.runId, true);
      void askAnew(client, { queryKey: ["log"] });
      navigate("/log", { replace: true });
    },
  });
  /** A count that no hands can do is asked about once. */
  const most = done?.most_strikes ?? null;
  const doubted = most !== null && (readStrikes(written.strikes) ?? 0) > most;
  const saveIt = () => {
    if (doubted && asked !== written.strikes) setAsked(written.strikes);
    else save.mutate();
  };
  useKeys(ENTRY, {
    rpe: ({ key }) => change({ rpe: /\d/.test(key) ? Number(key) : 10 }),
    save: () => ready && saveIt(),
    mark: () => setMarking(!marking),
  });
  const expected = Math.round(plan.expected_rpe);
  const unrated = places.filter((each) => all.of(each).rpe === null);
  const saveWord = save.isPending ? (
    "Saving …"
  ) : (
    <span>
      <u>S</u>ave log
    </span>
  );
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-start justify-between gap-3 pb-3">
        <div>
          <h1>{plan.title}, done</h1>
          <p className="quiet">
            <b className="text-[var(--ink)]">{name || "Nobody in particular"}</b>,{" "}
            {new Date(run.startedAt ?? 0).toLocaleString([], { dateStyle: "long", timeStyle: "short" })}
            {own?.record.simulated && " · with simulated devices"}
          </p>
        </div>
        <span className="flex flex-wrap gap-2">
          {places.length > 1 &&
            places.map((each) => (
              <button
                key={each}
                type="button"
                className={`act ${each === place ? "main" : ""}`}
                aria-pressed={each === place}
                onClick={() => setPlace(each)}
              >
                {crew[each]?.letter} {firstName(crew[each]?.name ?? "")}
                {all.of(each).rpe !== null && ", rated"}
              </button>
            ))}
          <button type="button" className="act" aria-expanded={marking} onClick={() => setMarking(!marking)}>
            <span>
              Mark a <u>n</u>iggle{written.pain.length > 0 && ` (${written.pain.length})`}
            </span>
          </button>
          <button type="button" className="act main" disabled={!ready || save.isPending} onClick={saveIt}>
            {saveWord}
          </button>
        </span>
      </header>
      {save.error && (
        <p role="alert" className="flex gap-3 border-b border-[var(--rule)] py-2">
          <span className="seal self-start">Stopped</span>
          {save.error.message}
        </p>
      )}
      {marking && <PainFlags pain={written.pain} onChange={(pain) => change({ pain })} />}
      <DoneScore
        key={place}
        timeline={livedBy(plan.timeline, place, crew.length, run.shift)}
        names={plan.part_names}
        done={done}
        heart={heart}
        label={`What was done over what was planned: ${effortsCounted} of ${efforts} efforts, ${heart.length} heart rates`}
      />
      {!done && (
        <p className="quiet pt-1 text-[13px]" role="status">
          {own?.lost
            ? "No network: rounds and fade are read when there is one. The log can be saved now."
            : "Reading the rounds …"}
        </p>
      )}
      <div className="mt-3 grid gap-8 border-t border-[var(--ink)] pt-4 min-[1000px]:grid-cols-[1.4fr_0.8fr_0.9fr]">
        <section>
          <div className="flex flex-wrap items-baseline justify-between gap-2">
            <h2>How hard was it{name ? `, ${firstName(name)}` : ""}?</h2>
            <span className="quiet text-[13px]">Ask 10 to 30 minutes after</span>
          </div>
          <p className="min-h-[56px] pt-2" aria-live="polite">
            {written.rpe === null ? (
              <span className="quiet">
                Pick one. We expected {expected}, {RPE_WORDS[expected]}.
              </span>
            ) : (
              <>
                <b className="mr-2 text-[40px] leading-[44px] font-[family-name:var(--font-head)]">{written.rpe}</b>
                <b className="text-[18px] font-[family-name:var(--font-head)]">{RPE_WORDS[written.rpe]}</b>
                <span className="quiet block text-[13px]">
                  We expected {expected}, {RPE_WORDS[expected]}
                </span>
              </>
            )}
          </p>
          <EffortPicker value={written.rpe} onChange={(rpe) => change({ rpe })} />
          <p className="quiet hidden pt-2 text-[13px] min-[900px]:block">
            0 to 9 pick, X for 10, Tab to the note, N marks a niggle, S saves <Keys places={[ENTRY]} />
          </p>
          {rated.length > 0 && unrated.length > 0 && (
            <p className="quiet pt-2 text-[13px]">
              Not rated yet, so not logged: {unrated.map((each) => crew[each]?.name || crew[each]?.letter).join(", ")}.
            </p>
          )}
          <button
            type="button"
            className="act main mt-3 w-full min-[900px]:hidden"
            disabled={!ready || save.isPending}
            onClick={saveIt}
          >
            {saveWord}
          </button>
        </section>
        <section>
          <h2>Plan and done</h2>
          <Sums
            plan={{
              total_s: plan.total_s,
              rpe: plan.expected_rpe,
              efforts,
              strikes:
                done?.expected_strikes ??
                plan.timeline.reduce((sum, piece) => sum + (piece.partner ? 0 : piece.strikes), 0),
              names: plan.part_names,
            }}
            done={{ played_s: played, efforts: effortsWritten, rpe: written.rpe, strikes }}
            review={done}
            shared={inPairs(plan)}
          />
          <UntimedRounds rounds={done?.rounds ?? []} names={plan.part_names} />
          <div className="flex flex-wrap gap-x-6 gap-y-3 pt-4">
            <Stepper
              label={`Efforts done, of ${efforts}`}
              value={effortsWritten}
              min={0}
              max={efforts}
              show={String}
              read={(text) => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : null)}
              step={() => 1}
              onChange={(counted) => change({ efforts: counted })}
            />
            <label className="block">
              <span className="label-text block pb-1">Strikes counted</span>
              <input
                className="field max-w-[130px]"
                inputMode="numeric"
                value={written.strikes}
                placeholder={done?.strikes != null ? String(done.strikes) : "not counted"}
                aria-invalid={wrongStrikes}
                aria-describedby="strikes-said"
                onChange={(event) => change({ strikes: event.target.value })}
              />
            </label>
          </div>
          {doubted && asked === written.strikes && (
            <p role="alert" className="pt-1">
              <span className="seal light">Sure?</span> {written.strikes} strikes in {clock(done?.work_s ?? 0)} of work:{" "}
              {most} is about the most that hands can do. If it is right, save again.
            </p>
          )}
          <p id="strikes-said" className="quiet pt-1 text-[13px]">
            {wrongStrikes && "A whole number from 0 to 20000, or nothing."}
            {effortsWritten !== effortsCounted && `The clock counted ${effortsCounted} efforts.`}
          </p>
        </section>
        <section>
          <h2>
            <label htmlFor="note">Note</label>
          </h2>
          <textarea
            id="note"
            className="field mt-2 min-h-[150px]"
            maxLength={4000}
            value={written.note}
            onChange={(event) => change({ note: event.target.value })}
          />
          <p className="quiet pt-1 text-[13px]">The club's coaches can read this. Leave medical detail out.</p>
        </section>
      </div>
    </main>
  );
}
