import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { logEntry } from "../../api/queries";
import { when } from "../../domain/time";
import { Notice } from "../../ui/Notice";
import { RPE_WORDS } from "../../ui/rpe";
import { DoneScore } from "./DoneScore";
import { Sums } from "./Sums";

/** One entry of the log, round by round. */
export function Logged() {
  const query = useQuery(logEntry(Number(useParams().entryId)));
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
        <Link className="act" to="/log">
          Back to the log
        </Link>
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
          <p className="pt-2 whitespace-pre-line">{entry.note || <span className="quiet">No note.</span>}</p>
        </section>
      </div>
    </main>
  );
}
