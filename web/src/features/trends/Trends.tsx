import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { groups as groupsQuery, people as peopleQuery, trends as trendsQuery } from "../../api/queries";
import { Choice } from "../../ui/Choice";
import { Keys } from "../../ui/Keys";
import { NEXT_TIME, TRENDS, useKeys } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { LogShelves } from "../../ui/Shelves";
import { saveFile } from "../../ui/saveFile";
import { Block } from "./Block";
import { Learned } from "./Learned";
import { NextTime } from "./NextTime";
import { csvOf, NumbersTable } from "./Numbers";
import { WeeksDrawing } from "./WeeksDrawing";

const SPANS = [4, 12, 52] as const;
type Span = (typeof SPANS)[number];
const spanOf = (text: string | null): Span => SPANS.find((span) => String(span) === text) ?? 12;

/** What weeks come to: load, strikes, minutes, tests, what was expected and what was; and what follows from it. */
export function Trends() {
  const [search, setSearch] = useSearchParams();
  const people = useQuery(peopleQuery).data ?? [];
  const groups = useQuery(groupsQuery).data ?? [];
  const everybody = [
    { id: "club", name: "Whole club" },
    ...groups.map(({ id, name }) => ({ id: `g${id}`, name: `Group: ${name}` })),
    ...people.map(({ id, name }) => ({ id: `p${id}`, name })),
  ];
  const who = search.get("of") ?? "club";
  const span = spanOf(search.get("weeks"));
  const table = search.get("table") !== null;
  const change = (part: Record<string, string | null>) =>
    setSearch(
      (before) => {
        const after = new URLSearchParams(before);
        for (const [key, value] of Object.entries(part)) value === null ? after.delete(key) : after.set(key, value);
        return after;
      },
      { replace: true },
    );
  const id = Number(who.slice(1));
  const personId = who.startsWith("p") ? id : null;
  const query = useQuery(
    trendsQuery(span, personId !== null ? { person_id: id } : who.startsWith("g") ? { group_id: id } : {}),
  );
  const step = (by: number) => {
    const at = everybody.findIndex((each) => each.id === who);
    const next = everybody[at + by];
    if (next) change({ of: next.id });
  };
  const wider = (by: number) => change({ weeks: String(SPANS[SPANS.indexOf(span) + by] ?? span) });
  useKeys(TRENDS, {
    fewer: () => wider(-1),
    more: () => wider(1),
    before: () => step(-1),
    next: () => step(1),
    table: () => change({ table: table ? null : "1" }),
    print: () => window.print(),
  });
  const data = query.data;
  if (!data) return <Notice asked={query} title="Adding up the weeks" />;
  const sessions = data.weeks.reduce((sum, week) => sum + week.sessions, 0);
  return (
    <main className="grid min-[1100px]:grid-cols-[1fr_316px] print:block">
      <div className="min-w-0 px-4 pt-[18px] pb-8 min-[900px]:px-6">
        <header className="flex flex-wrap items-end justify-between gap-3">
          <div>
            <h1>{data.who}</h1>
            <p className="quiet">
              {span} weeks, {sessions} {sessions === 1 ? "session" : "sessions"} logged
              {personId === null && data.people > 0 && `, by ${data.people}`}
            </p>
          </div>
          <div className="flex flex-wrap gap-2 print:hidden">
            <Choice label="Of" value={who} options={everybody} onChange={(of) => change({ of })} />
            <Choice
              label="Weeks"
              value={String(span)}
              options={SPANS.map((each) => ({ id: String(each), name: `Last ${each} weeks` }))}
              onChange={(weeks) => change({ weeks })}
            />
          </div>
        </header>
        <LogShelves />
        {sessions === 0 ? (
          <Notice title="Nothing logged in these weeks" text="What is logged after a run is added up here." />
        ) : (
          <>
            {table ? <NumbersTable trends={data} /> : <WeeksDrawing trends={data} />}
            {data.rated > 0 && (
              <p className="pt-2">
                <b>
                  {data.inside} of {data.rated}
                </b>{" "}
                ratings fell within a point of what was expected (8 in 10 would be {Math.round(0.8 * data.rated)}).
              </p>
            )}
            <p className="quiet text-[12px]">{data.criticism}</p>
            <p className="flex flex-wrap items-center gap-x-4 pt-3 print:hidden">
              <button type="button" className="link min-h-[30px]" onClick={() => change({ table: table ? null : "1" })}>
                {table ? "Drawing" : "Table"}
              </button>
              <button
                type="button"
                className="link min-h-[30px]"
                onClick={() =>
                  saveFile(`trends-${data.who.toLowerCase().replace(/\W+/g, "-")}.csv`, "text/csv", csvOf(data))
                }
              >
                Save as CSV
              </button>
              <button type="button" className="link min-h-[30px]" onClick={() => window.print()}>
                Print
              </button>
              <Keys places={personId === null ? [TRENDS] : [TRENDS, NEXT_TIME]} />
            </p>
          </>
        )}
      </div>
      <aside className="bg-[var(--sheet)] px-4 pt-[18px] pb-8 min-[1100px]:border-l min-[1100px]:border-[var(--rule)]">
        <Block trends={data} />
        {personId !== null && <Learned key={`learned ${personId}`} personId={personId} />}
        {personId !== null && <NextTime key={`next ${personId}`} personId={personId} />}
      </aside>
    </main>
  );
}
