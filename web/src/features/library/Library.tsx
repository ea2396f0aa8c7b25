import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need } from "../../api/client";
import { sessions as sessionsQuery, vocabulary as vocabularyQuery } from "../../api/queries";
import { once } from "../../domain/once";
import type { ToLay } from "../../domain/session/toLay";
import { clock } from "../../domain/time";
import { BenchLink } from "../../ui/BenchLink";
import { holdsAll } from "../../ui/holdsAll";
import { Notice } from "../../ui/Notice";
import { SendOutKey } from "../../ui/SendOut";
import { useTrains } from "../../ui/useTrains";
import { Head } from "./Head";
import { Import } from "./Import";
import { inSeries } from "./inSeries";

/** Shown at first, and with each further touch. */
const AT_ONCE = 100;

/** The club's own sessions. */
export function Library() {
  const query = useQuery(sessionsQuery);
  const targets = useQuery(vocabularyQuery).data?.targets;
  const client = useQueryClient();
  const trains = useTrains();
  const [asking, setAsking] = useState<number | null>(null);
  const remove = useMutation({
    mutationFn: (id: number) =>
      need(api.DELETE("/api/sessions/{session_id}", { params: { path: { session_id: id } } })),
    onSettled: () => {
      setAsking(null);
      void askAnew(client, { queryKey: ["sessions"] });
    },
  });
  const duplicate = useMutation({
    mutationFn: async (id: number) => {
      const params = { path: { session_id: id } };
      const { document, person_id, target, tags } = await need(api.GET("/api/sessions/{session_id}", { params }));
      const copy = { ...document, title: `${document.title.slice(0, 114)}, copy` };
      const body = { document: copy, person_id: person_id ?? null, target, tags, by_itself: false };
      return once(["duplicate", body], (headers) => need(api.POST("/api/sessions", { body, headers })));
    },
    onSuccess: () => {
      setSearch("");
      return askAnew(client, { queryKey: ["sessions"] });
    },
  });
  const [search, setSearch] = useState("");
  const [most, setMost] = useState(AT_ONCE);
  const found = (query.data ?? []).filter((row) =>
    holdsAll(search, [
      row.title,
      row.person,
      ...row.tags,
      ...row.text,
      targets?.find((each) => each.id === row.target)?.name,
    ]),
  );
  const shown = inSeries(found);
  const tags = [...new Set((query.data ?? []).flatMap((row) => row.tags))].sort((a, b) => a.localeCompare(b));
  if (!query.data) return <Notice asked={query} title="Opening the library" />;
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <Head>
        <div className="flex flex-wrap items-start gap-2">
          <label className="label-text">
            <span className="sr-only">Search</span>
            <input
              type="search"
              className="field"
              value={search}
              placeholder="Search: title, person, tag, line"
              onChange={(event) => setSearch(event.target.value)}
            />
          </label>
          {trains && (
            <>
              <Import />
              <Link className="act main" to="/bench" state={{ lay: { kind: "empty", said: "" } satisfies ToLay }}>
                New session
              </Link>
            </>
          )}
        </div>
      </Head>
      {tags.length > 0 && (
        <p className="flex flex-wrap items-center gap-x-4 pt-2 text-[13px]">
          <span className="quiet">Tags</span>
          {tags.map((tag) => (
            <button
              key={tag}
              type="button"
              className="link min-h-[30px] max-[899px]:min-h-[44px]"
              aria-pressed={search === tag}
              onClick={() => setSearch(search === tag ? "" : tag)}
            >
              {tag}
            </button>
          ))}
        </p>
      )}
      {query.data.length === 0 ? (
        <Notice
          title="No sessions yet"
          text={
            trains
              ? "Type a pattern, take one of the schools' protocols, or bring a file; save it, and it stands here."
              : "As soon as a coach has saved one, it stands here to be run."
          }
        >
          {trains && (
            <Link className="act main" to="/bench">
              Go to the bench
            </Link>
          )}
        </Notice>
      ) : found.length === 0 ? (
        <Notice title="No session has all these words" text="Try fewer, or look on the schools' shelf.">
          <button type="button" className="act" onClick={() => setSearch("")}>
            Show all
          </button>
        </Notice>
      ) : (
        <ul>
          {shown.slice(0, most).map((row) => (
            <li
              key={row.id}
              className="grid items-center gap-x-6 gap-y-2 border-b border-[var(--rule)] py-3 min-[900px]:grid-cols-[1fr_minmax(0,1.2fr)_auto]"
            >
              <div>
                <h3>
                  <BenchLink sessionId={row.id}>{row.title}</BenchLink>
                </h3>
                <p className="quiet text-[13px]">
                  {row.person ?? "Nobody in particular"}, {targets?.find((target) => target.id === row.target)?.name},{" "}
                  {clock(row.total_s)}
                  {row.series && (
                    <>
                      {" "}
                      · week {row.series.week} of {row.series.weeks}{" "}
                      {row.series.due && <span className="seal light">Next due</span>}
                    </>
                  )}
                  {row.tags.length > 0 && ` · ${row.tags.join(", ")}`}
                </p>
              </div>
              <p className="line-clamp-2 text-[13px]">{row.text.filter((line) => line !== row.title).join(" · ")}</p>
              <div className="flex flex-wrap items-start gap-2">
                <Link className="act main" to={`/floor/${row.id}`} aria-label={`Run ${row.title}`}>
                  Run
                </Link>
                {trains && (
                  <button
                    type="button"
                    className="act"
                    aria-label={`Duplicate ${row.title}`}
                    disabled={duplicate.isPending}
                    onClick={() => duplicate.mutate(row.id)}
                  >
                    Duplicate
                  </button>
                )}
                <SendOutKey session={{ id: row.id, title: row.title, personId: null }} />
                {!trains ? null : asking === row.id ? (
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
      {shown.length > most && (
        <p className="flex flex-wrap items-center gap-4 pt-4 text-[13px]">
          <button type="button" className="act" onClick={() => setMost(most + AT_ONCE)}>
            Show more
          </button>
          <span className="quiet">
            {query.isFetching
              ? "Reading the rest of the library …"
              : `${most} of ${shown.length} sessions; the search goes through all of them.`}
          </span>
        </p>
      )}
    </main>
  );
}
