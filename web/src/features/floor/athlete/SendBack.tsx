import { type FormEvent, useEffect, useState } from "react";
import { EffortPicker } from "../../../charts/effort/EffortPicker";
import { type KeptRun, recallRunById } from "../../../domain/clock/keptRun";
import { recordOf } from "../../../domain/clock/record";
import { effortsDone, played_s } from "../../../domain/clock/run";
import { shelf } from "../../../domain/device/shelf";
import { clock } from "../../../domain/time";
import { Closed, keepUnsent, send, type SentBack as Told, unsent } from "./link";
import { forgetHeart, heartOf } from "./useOwnStrap";

interface Props {
  runId: string;
  token: string;
  onDone: () => void;
}

interface Written {
  name: string;
  rpe: number | null;
  note: string;
}
const EMPTY: Written = { name: "", rpe: null, note: "" };
/** Half-written it survives a reload. */
const written = shelf<Written>("own-words", 1, (value) => ({ ...EMPTY, ...(value as Partial<Written>) }));

function toldOf({ plan, run, crew }: KeptRun, words: Written, rpe: number): Told {
  const heart = heartOf(run.runId);
  return {
    run_id: run.runId,
    name: words.name.trim(),
    document: plan.document,
    revision: plan.revision,
    started_at: run.startedAt ?? new Date().toISOString(),
    done_s: Math.round(Math.min(plan.total_s, played_s(run))),
    done_efforts: effortsDone(run, plan.efforts),
    rpe,
    note: words.note.trim(),
    record: { ...recordOf(run, crew.slice(0, 1), 0, { heart, strikes: [] }), strikes: null },
  };
}

/** How it was, on its way to the coach. It is kept on this device until it has arrived. */
export function SendBack({ runId, token, onDone }: Props) {
  const [kept] = useState(() => recallRunById(runId));
  const [words, setWords] = useState<Written>(() => written.get(runId) ?? EMPTY);
  const [state, setState] = useState<"writing" | "sending" | "waiting" | "sent" | "refused">(() =>
    unsent(token).some(({ body }) => body.run_id === runId) ? "waiting" : "writing",
  );
  const [said, setSaid] = useState("");
  const change = (part: Partial<Written>) => {
    const next = { ...words, ...part };
    setWords(next);
    written.set(next, runId);
  };
  const go = async () => {
    const waiting = unsent(token).find(({ body }) => body.run_id === runId);
    if (!waiting) return;
    setState("sending");
    try {
      setSaid(await send(waiting));
      setState("sent");
      written.remove(runId);
      forgetHeart(runId);
    } catch (error) {
      setSaid(error instanceof Error ? error.message : String(error));
      setState(error instanceof Closed && error.gone ? "refused" : "waiting");
    }
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once there is a network, whatever is written by then
  useEffect(() => {
    const again = () => void go();
    window.addEventListener("online", again);
    if (state === "waiting") again();
    return () => window.removeEventListener("online", again);
  }, []);
  if (!kept) {
    return (
      <main className="mx-auto max-w-[720px] px-4 pt-10">
        <p>This run is not kept on this device any more.</p>
        <button type="button" className="act main" onClick={onDone}>
          Back to the session
        </button>
      </main>
    );
  }
  const { plan, run } = kept;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (words.rpe === null) return;
    if (!keepUnsent(token, toldOf(kept, words, words.rpe))) setSaid("This browser keeps nothing: stay on this page.");
    void go();
  };
  const total = clock(plan.total_s);
  return (
    <main className="mx-auto max-w-[720px] px-4 pt-6 pb-10">
      <h1>How was it?</h1>
      <p className="quiet">
        {plan.title}: {clock(Math.round(played_s(run)))} of {total}, {effortsDone(run, plan.efforts)} of{" "}
        {plan.efforts.length} efforts
        {heartOf(runId).length > 0 && `, with ${heartOf(runId).length} heart rates`}
      </p>
      {state === "sent" ? (
        <section aria-label="Sent" className="py-6">
          <p role="status" className="text-[20px]">
            <span className="tick">✓</span> {said}
          </p>
          <button type="button" className="act main mt-4" onClick={onDone}>
            Back to the session
          </button>
        </section>
      ) : (
        <form onSubmit={submit} className="grid gap-4 pt-4">
          <EffortPicker value={words.rpe} onChange={(rpe) => change({ rpe })} />
          <label className="label-text">
            <span className="block pb-1">Your name, so that the coach knows</span>
            <input
              className="field w-full"
              maxLength={60}
              autoComplete="name"
              value={words.name}
              onChange={(event) => change({ name: event.target.value })}
            />
          </label>
          <label className="label-text">
            <span className="block pb-1">A word to the coach</span>
            <textarea
              className="field min-h-[84px] w-full"
              maxLength={1000}
              value={words.note}
              onChange={(event) => change({ note: event.target.value })}
            />
          </label>
          {said && <p role="alert">{said}</p>}
          <div className="flex flex-wrap gap-3">
            <button type="submit" className="act main" disabled={words.rpe === null || state === "sending"}>
              {state === "sending" ? "Sending …" : state === "waiting" ? "Send again" : "Send it to the coach"}
            </button>
            <button type="button" className="act" onClick={onDone} disabled={state === "sending"}>
              {state === "refused" || state === "waiting" ? "Back to the session" : "Keep it to myself"}
            </button>
          </div>
          {words.rpe === null && (
            <p className="quiet text-[13px]">Choose how hard it was first: 0 is rest, 10 the most.</p>
          )}
        </form>
      )}
    </main>
  );
}
