import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { runPlan } from "../../api/queries";
import { LETTERS } from "../../domain/clock/crew";
import { forgetRun, recallRun } from "../../domain/clock/keptRun";
import { Notice } from "../../ui/Notice";
import { Clock } from "./Clock";

/** Run a session: readable from across the hall, one big key. */
export function Floor() {
  const sessionId = Number(useParams().sessionId);
  const [kept, setKept] = useState(() => recallRun(sessionId));
  const begun = kept?.run.startedAt ? kept : null;
  // Today's plan hands on who comes, as many as one clock follows.
  const planned = (useLocation().state as { who?: Schemas["Somebody"][] } | null)?.who ?? [];
  const who = planned.length <= LETTERS.length ? planned : [];
  const [people, setPeople] = useState(kept?.crew.length ?? Math.max(1, who.length));
  const query = useQuery({ ...runPlan(sessionId, people), enabled: begun === null });
  /** Of a class, as it was changed while it runs. */
  const [changed, setChanged] = useState<Schemas["RunPlan"] | null>(null);
  const navigate = useNavigate();
  if (begun && begun.run.endedAtMs !== null) {
    return (
      <Notice title="This run waits for its log" text={`${begun.plan.title} has ended and is not logged yet.`}>
        <button type="button" className="act main" onClick={() => navigate(`/log/run?run=${begun.run.runId}`)}>
          Log it
        </button>
        <button
          type="button"
          className="act"
          onClick={() => {
            forgetRun(begun.run.runId);
            setKept(null);
          }}
        >
          Leave it out and run again
        </button>
      </Notice>
    );
  }
  const plan = changed ?? begun?.plan ?? query.data;
  if (query.error && !plan) {
    return (
      <Notice title="This session cannot be run" text={query.error.message}>
        {people > 2 && (
          <button type="button" className="act main" onClick={() => setPeople(people - 1)}>
            With {people - 1} people
          </button>
        )}
        <Link className="act" to="/library">
          Go to the library
        </Link>
      </Notice>
    );
  }
  if (!plan) return <Notice asked={query} title="Setting the clock" />;
  if (plan.timeline.length === 0) {
    return (
      <Notice title="Nothing to run" text="This session has no parts yet.">
        <Link className="act main" to={`/bench/${sessionId}`}>
          Put it on the bench
        </Link>
      </Notice>
    );
  }
  return <Clock plan={plan} people={people} onPeople={setPeople} who={who} onPlan={setChanged} />;
}
