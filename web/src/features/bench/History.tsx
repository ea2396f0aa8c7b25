import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { versions as versionsQuery } from "../../api/queries";
import { type Draft, draftOf } from "../../domain/session/draft";
import { clock, when } from "../../domain/time";
import { Sheet } from "../../ui/Sheet";

interface Props {
  sessionId: number;
  /** Whom and what for a version was saved. */
  forWhom: (version: Schemas["SavedVersion"]) => string;
  onCompare: (revision: number) => void;
  onRestore: (draft: Draft, said: string) => void;
  onClose: () => void;
}

/** Who saved what and when; any version can be looked at beside what stands here now, or restored. */
export function History({ sessionId, forWhom, onCompare, onRestore, onClose }: Props) {
  const query = useQuery({ ...versionsQuery(sessionId), staleTime: 0 });
  return (
    <Sheet label="History" className="w-[min(680px,calc(100vw-32px))]" onClose={onClose}>
      <div className="flex items-start justify-between gap-3">
        <h2>History</h2>
        <button type="button" className="act" onClick={onClose}>
          Close
        </button>
      </div>
      {!query.data && <p className="quiet pt-3">{query.error?.message ?? "Opening the history …"}</p>}
      <ol className="pt-2">
        {query.data?.map((version, index) => (
          <li key={version.revision} className="rule-t grid gap-x-4 gap-y-1 py-3 min-[600px]:grid-cols-[1fr_auto]">
            <div>
              <p>
                <b>{when(version.saved_at)}</b>
                {version.saved_by ? `, ${version.saved_by}` : ""}
                <span className="quiet">
                  {version.by_itself ? ", kept by itself" : ""}
                  {index === 0 ? ", as it is saved now" : ""}
                </span>
              </p>
              <p className="line-clamp-2 text-[13px]">
                {version.document.title}, for {forWhom(version)}, {clock(version.total_s)}: {version.text.join(" · ")}
              </p>
            </div>
            <p className="flex items-start gap-2">
              <button type="button" className="act" onClick={() => onCompare(version.revision)}>
                Compare
              </button>
              {index > 0 && (
                <button
                  type="button"
                  className="act"
                  onClick={() =>
                    onRestore(
                      draftOf(version),
                      `As it was saved ${when(version.saved_at)}. Ctrl Z brings back what was here.`,
                    )
                  }
                >
                  Restore
                </button>
              )}
            </p>
          </li>
        ))}
      </ol>
    </Sheet>
  );
}
