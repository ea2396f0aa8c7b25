import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
import { forgetRun, type KeptRun, waitingRuns } from "../clock/keptRun";
import { effortsDone, played_s } from "../clock/run";
import { nowMs } from "../clock/steady";
import { forgetJournal } from "../outbox/journal";
import { send } from "../outbox/outbox";
import { Notice } from "../parts/Notice";
import { Stepper } from "../parts/Stepper";
import { clock } from "../parts/time";
import { EffortPicker } from "./EffortPicker";
import { RPE_WORDS } from "./rpe";

/** Log the run that has just ended. */
export function LogEntry() {
  const [search] = useSearchParams();
  const sessionId = Number(search.get("session"));
  const [kept] = useState(() => waitingRuns(nowMs()).find((each) => each.plan.session_id === sessionId) ?? null);
  if (!kept) {
    return (
      <Notice title="No run waits for its log" text="It may have been logged already.">
        <Link className="act main" to="/log">
          Go to the log
        </Link>
      </Notice>
    );
  }
  return <Entry kept={kept} />;
}

interface Written {
  rpe: number | null;
  efforts: number;
  /** Empty where nobody counted. */
  strikes: string;
  note: string;
}

function Entry({ kept }: { kept: KeptRun }) {
  const { plan, run } = kept;
  const client = useQueryClient();
  const navigate = useNavigate();
  const draftKey = `yoisho.log.${run.runId}`;
  const counted = useMemo(() => effortsDone(run, plan.efforts), [run, plan.efforts]);
  const [written, setWritten] = useState<Written>(() => {
    try {
      return (
        (JSON.parse(localStorage.getItem(draftKey) ?? "null") as Written | null) ?? {
          rpe: null,
          efforts: counted,
          strikes: "",
          note: "",
        }
      );
    } catch {
      return { rpe: null, efforts: counted, strikes: "", note: "" };
    }
  });
  const change = (part: Partial<Written>) => {
    const next = { ...written, ...part };
    localStorage.setItem(draftKey, JSON.stringify(next));
    setWritten(next);
  };
  const done = played_s(run);
  const wrongStrikes = (written.strikes ?? "").trim() !== "" && readStrikes(written.strikes) === null;
  const ready = written.rpe !== null && !wrongStrikes;
  const save = useMutation({
    mutationFn: async () => {
      const body: Schemas["LogIn"] = {
        session_id: plan.session_id,
        person_id: plan.person_id ?? null,
        started_at: run.startedAt ?? new Date().toISOString(),
        done_s: done,
        done_efforts: written.efforts,
        rpe: written.rpe ?? 0,
        counted_strikes: readStrikes(written.strikes ?? ""),
        note: written.note,
      };
      const path = `/api/runs/${run.runId}/log`;
      const outcome = await send({ key: `log ${run.runId}`, path, body, title: plan.title });
      if (outcome.kind === "refused") throw new Error(outcome.message);
    },
    onSuccess: () => {
      // It has reached the server, or waits on this device until there is a network.
      forgetRun(plan.session_id);
      void forgetJournal(run.runId).catch(() => {});
      localStorage.removeItem(draftKey);
      void client.invalidateQueries({ queryKey: ["log"] });
      navigate("/log", { replace: true });
    },
  });
  useEntryKeys(
    (rpe) => change({ rpe }),
    () => ready && save.mutate(),
  );
  const expected = Math.round(plan.expected_rpe);
  const load = written.rpe === null ? null : Math.round((written.rpe * done) / 60);
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-start justify-between gap-3 border-b border-[var(--ink)] pb-4">
        <div>
          <h1>{plan.title}, done</h1>
          <p className="quiet">
            <b className="text-[var(--ink)]">{plan.person ?? "Nobody in particular"}</b>,{" "}
            {new Date(run.startedAt ?? 0).toLocaleString([], { dateStyle: "long", timeStyle: "short" })}
          </p>
        </div>
        <button type="button" className="act main" disabled={!ready || save.isPending} onClick={() => save.mutate()}>
          {save.isPending ? (
            "Saving …"
          ) : (
            <span>
              <u>S</u>ave log
            </span>
          )}
        </button>
      </header>
      {save.error && (
        <p role="alert" className="flex gap-3 border-b border-[var(--rule)] py-2">
          <span className="seal self-start">Stopped</span>
          {save.error.message}
        </p>
      )}
      <div className="grid gap-8 pt-5 min-[1000px]:grid-cols-[1.4fr_0.8fr_0.9fr]">
        <section>
          <div className="flex flex-wrap items-baseline justify-between gap-2">
            <h2>How hard was it{plan.person ? `, ${plan.person.split(" ")[0]}` : ""}?</h2>
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
            0 to 9 pick, X for 10, Tab to the note, S saves
          </p>
        </section>
        <section>
          <h2>Plan and done</h2>
          <table className="mt-1 w-full">
            <thead className="label-text text-left">
              <tr>
                <th />
                <th className="text-right">plan</th>
                <th className="text-right">done</th>
              </tr>
            </thead>
            <tbody>
              <Row name="Time" plan={clock(plan.total_s)} done={clock(done)} />
              <Row name="Efforts" plan={String(plan.efforts.length)} done={String(written.efforts)} />
              <Row name="RPE" plan={String(expected)} done={written.rpe === null ? "to pick" : String(written.rpe)} />
              <Row
                name="Load, RPE × min"
                plan={String(Math.round((plan.expected_rpe * plan.total_s) / 60))}
                done={load === null ? "to pick" : String(load)}
              />
            </tbody>
          </table>
          <div className="pt-4">
            <Stepper
              label={`Efforts done, of ${plan.efforts.length}`}
              value={written.efforts}
              min={0}
              max={plan.efforts.length}
              show={String}
              read={(text) => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : null)}
              step={() => 1}
              onChange={(efforts) => change({ efforts })}
            />
            <label className="block pt-4">
              <span className="label-text block pb-1">Strikes counted, if anybody did</span>
              <input
                className="field max-w-[150px]"
                inputMode="numeric"
                value={written.strikes ?? ""}
                placeholder="not counted"
                aria-invalid={wrongStrikes}
                aria-describedby="strikes-said"
                onChange={(event) => change({ strikes: event.target.value })}
              />
              <span id="strikes-said" className="quiet block pt-1 text-[13px]">
                {wrongStrikes
                  ? "A whole number from 0 to 20000, or nothing."
                  : `About ${Math.round(plan.timeline.reduce((sum, piece) => sum + piece.strikes, 0))} planned`}
              </span>
            </label>
            {written.efforts !== counted && <p className="quiet pt-1 text-[13px]">The clock counted {counted}.</p>}
          </div>
        </section>
        <section>
          <h2>
            <label htmlFor="note">Note</label>
          </h2>
          <textarea
            id="note"
            className="field mt-2 min-h-[170px]"
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

/** The count, or null where there is none or it is no number. */
function readStrikes(text: string): number | null {
  return /^\d{1,5}$/.test(text.trim()) && Number(text) <= 20_000 ? Number(text) : null;
}

function Row({ name, plan, done }: { name: string; plan: string; done: string }) {
  return (
    <tr className="border-t border-[var(--rule)]">
      <th className="py-[6px] text-left font-normal">{name}</th>
      <td className="quiet text-right">{plan}</td>
      <td className="text-right font-semibold">{done}</td>
    </tr>
  );
}

function useEntryKeys(pick: (rpe: number) => void, save: () => void) {
  const latest = useRef({ pick, save });
  latest.current = { pick, save };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.closest("textarea, input:not([type=radio])") || event.ctrlKey || event.metaKey || event.altKey) return;
      const key = event.key.toLowerCase();
      if (/^\d$/.test(key)) latest.current.pick(Number(key));
      else if (key === "x") latest.current.pick(10);
      else if (key === "s") latest.current.save();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
