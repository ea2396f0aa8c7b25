import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { people as peopleQuery, vocabulary as vocabularyQuery } from "../../api/queries";
import { Notice } from "../../ui/Notice";
import { Desk } from "./Desk";
import { useStart } from "./useBench";
import { useFirstAnswer } from "./useEvaluation";

/** Design and judgement on one screen. */
export function Bench() {
  const id = useParams().sessionId;
  const sessionId = id === undefined ? null : Number(id);
  return <Opening key={id ?? "new"} sessionId={sessionId} />;
}

function Opening({ sessionId }: { sessionId: number | null }) {
  const { start, error, waitingLong } = useStart(sessionId);
  const vocabulary = useQuery(vocabularyQuery);
  const people = useQuery(peopleQuery);
  const workedOut = useFirstAnswer(start?.draft ?? null);
  if (error) {
    return (
      <Notice title="This session cannot be opened" text={error.message}>
        <Link className="act main" to="/library">
          Go to the library
        </Link>
      </Notice>
    );
  }
  if (!start || !vocabulary.data || !people.data || !workedOut) {
    return <Notice waiting lost={waitingLong || vocabulary.failureCount > 0} title="Laying it on the bench" />;
  }
  return <Desk sessionId={sessionId} start={start} vocabulary={vocabulary.data} people={people.data} />;
}
