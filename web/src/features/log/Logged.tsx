import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { logEntry } from "../../api/queries";
import { when } from "../../domain/time";
import { Notice } from "../../ui/Notice";
import { RPE_WORDS } from "../../ui/rpe";
import { SendOutKey } from "../../ui/SendOut";
import { useTicked } from "../../ui/useTicked";
import { useTrains } from "../../ui/useTrains";
import { DoneScore } from "./DoneScore";
import { HeartFile } from "./HeartFile";
import { Sums } from "./Sums";

/** One entry of the log, round by round. */
export function Logged() {
  const query = useQuery(logEntry(Number(useParams().entryId)));
  const trains = useTrains();
  const entry = query.data;
  if (query.error) {
    return (
      <Notice title="This entry cannot be shown" text={query.error.message}>
        <Link className="act main" to="/log">
          Go to the log
        </Link>
      </Notice>
    );
  }
  if (!entry) return <Notice asked={query} title="Opening the entry" />;
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-start justify-between gap-3 pb-3">
        <div>
          <h1>{entry.title}</h1>
          <p className="quiet">
            <b className="text-[var(--ink)]">{entry.person ?? "Nobody in particular"}</b>, {when(entry.started_at)}
            {entry.simulated ? " · simulated for the demo" : entry.devices_simulated && " · with simulated devices"}
          </p>
        </div>
        <span className="flex gap-2">
          {(entry.session_id !== null || (trains && entry.heart.length > 0)) && (
            <SendOutKey
              session={{ id: entry.session_id, title: entry.title, personId: null }}
              heartOf={trains && entry.heart.length > 0 ? entry.id : undefined}
            />
          )}
          <Link className="act" to="/log">
            Back to the log
          </Link>
        </span>
      </header>
      <DoneScore
        timeline={entry.timeline}
        names={entry.part_names}
        done={entry.done}
        heart={entry.heart as [number, number][]}
        label={`What was done over what was planned: ${entry.done_efforts} of ${entry.planned_efforts} efforts`}
      />
      {!entry.done && (
        <p className="quiet pt-1 text-[13px]">Written down by hand, so there is nothing of single rounds.</p>
      )}
      {trains && <HeartFile key={entry.id} entryId={entry.id} />}
      <div className="mt-3 grid gap-8 border-t border-[var(--ink)] pt-4 min-[900px]:grid-cols-2">
        <section>
          <h2>Plan and done</h2>
          <Sums
            plan={{
              total_s: entry.planned_s,
              rpe: entry.planned_rpe,
              efforts: entry.planned_efforts,
              strikes: entry.expected_strikes,
              names: entry.part_names,
            }}
            done={{
              played_s: entry.done_s,
              efforts: entry.done_efforts,
              rpe: entry.rpe,
              strikes: entry.counted_strikes ?? entry.done?.strikes ?? null,
            }}
            review={entry.done}
            shared={entry.timeline.some((piece) => piece.partner)}
          />
        </section>
        <section>
          <h2>How it was</h2>
          <p className="pt-2">
            <b>{entry.rpe}</b> {RPE_WORDS[entry.rpe]}, expected {Math.round(entry.planned_rpe)}
          </p>
          {entry.pain.length > 0 && (
            <p className="pt-2">
              <span className="seal">Pain</span> {entry.pain.map((flag) => flag.text).join(", ")}
            </p>
          )}
          {trains && entry.person && <LeftOut entry={entry} />}
          <p className="pt-2 whitespace-pre-line">{entry.note || <span className="quiet">No note.</span>}</p>
        </section>
      </div>
    </main>
  );
}

/** Whether something is learned of the person from it. */
function LeftOut({ entry }: { entry: Pick<Schemas["LogDetail"], "id" | "left_out" | "person"> }) {
  const client = useQueryClient();
  const learns = useTicked(!entry.left_out, async (ticked) => {
    const body = { left_out: !ticked };
    await need(api.PUT("/api/log/{entry_id}/evidence", { params: { path: { entry_id: entry.id } }, body }));
    await askAnew(client, { queryKey: ["log"] });
  });
  return (
    <div className="pt-2">
      <label className="flex min-h-[44px] cursor-pointer items-center gap-2 text-[13px]">
        <input
          type="checkbox"
          className="checkbox"
          checked={learns.ticked}
          disabled={learns.waiting}
          onChange={({ target }) => learns.tick(target.checked)}
        />
        Learn from it what {entry.person} can do
      </label>
      {learns.error && <p role="alert">{learns.error.message}</p>}
    </div>
  );
}
