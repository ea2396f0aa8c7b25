import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, need } from "../api/client";
import { sessions as sessionsQuery, vocabulary as vocabularyQuery } from "../api/queries";
import { Notice } from "../parts/Notice";
import { clock } from "../parts/time";

/** The club's own sessions. */
export function Library() {
  const query = useQuery(sessionsQuery);
  const targets = useQuery(vocabularyQuery).data?.targets;
  const client = useQueryClient();
  const [asking, setAsking] = useState<number | null>(null);
  const remove = useMutation({
    mutationFn: (id: number) =>
      need(api.DELETE("/api/sessions/{session_id}", { params: { path: { session_id: id } } })),
    onSettled: () => {
      setAsking(null);
      void client.invalidateQueries({ queryKey: ["sessions"] });
    },
  });
  if (!query.data) return <Notice waiting lost={query.failureCount > 0} title="Opening the library" />;
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-start justify-between gap-3 border-b border-[var(--ink)] pb-4">
        <div>
          <h1>Library</h1>
          <p className="quiet">The club's sessions, last saved first</p>
        </div>
        <Link className="act main" to="/bench">
          New session
        </Link>
      </header>
      {query.data.length === 0 ? (
        <Notice title="No sessions yet" text="Type a pattern or let one be proposed; save it, and it stands here.">
          <Link className="act main" to="/bench">
            Go to the bench
          </Link>
        </Notice>
      ) : (
        <ul>
          {query.data.map((row) => (
            <li
              key={row.id}
              className="grid items-center gap-x-6 gap-y-2 border-b border-[var(--rule)] py-3 min-[900px]:grid-cols-[1fr_minmax(0,1.2fr)_auto]"
            >
              <div>
                <h3>
                  <Link className="hover:underline" to={`/bench/${row.id}`}>
                    {row.title}
                  </Link>
                </h3>
                <p className="quiet text-[13px]">
                  {row.person ?? "Nobody in particular"}, {targets?.find((target) => target.id === row.target)?.name},{" "}
                  {clock(row.total_s)}
                </p>
              </div>
              <p className="line-clamp-2 text-[13px]">{row.text.join(" · ")}</p>
              <div className="flex gap-2">
                <Link className="act main" to={`/floor/${row.id}`} aria-label={`Run ${row.title}`}>
                  Run
                </Link>
                {asking === row.id ? (
                  <>
                    <button
                      type="button"
                      className="act"
                      disabled={remove.isPending}
                      onClick={() => remove.mutate(row.id)}
                    >
                      {remove.isPending ? "Deleting …" : "Yes, delete"}
                    </button>
                    <button type="button" className="act" onClick={() => setAsking(null)}>
                      Keep it
                    </button>
                  </>
                ) : (
                  <button
                    type="button"
                    className="act"
                    aria-label={`Delete ${row.title}`}
                    onClick={() => setAsking(row.id)}
                  >
                    Delete
                  </button>
                )}
              </div>
            </li>
          ))}
        </ul>
      )}
    </main>
  );
}
