import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, need } from "../../api/client";
import { me, personPage } from "../../api/queries";
import { day } from "../../domain/time";
import { capital } from "../../ui/capital";
import { Notice } from "../../ui/Notice";
import { Has } from "./Has";
import { Knocks, NewKnock } from "./Knocks";
import { Limits } from "./Limits";
import { PersonForm } from "./PersonForm";
import { Screening } from "./Screening";
import { StrikeTest } from "./StrikeTest";
import { NewTest, Tests } from "./Tests";
import { type Page, type Person, useArchive, useChanged, usePageAct, useSavePerson } from "./useRoster";

/** Somebody whole: who they are, what they must not do, what they have, and their tests. */
export function PersonPage({ id }: { id: number }) {
  const query = useQuery(personPage(id));
  // Whoever is chosen far down the list is read from the top.
  useEffect(() => {
    window.scrollTo({ top: 0 });
  }, []);
  const [open, setOpen] = useState<"edit" | "test" | "knock" | null>(null);
  const [said, setSaid] = useState<{ words: string; undo: () => void } | null>(null);
  const act = usePageAct(id);
  const archive = useArchive();
  const undoEdit = useSavePerson(id);
  if (query.error && !query.data) {
    return (
      <Notice title="There is nobody here" text={query.error.message}>
        <Link className="act" to="/roster">
          To the roster
        </Link>
      </Notice>
    );
  }
  if (!query.data) return <Notice asked={query} title="Opening the page" />;
  const page = query.data;
  const { person } = page;
  const put = (archived: boolean) =>
    archive.mutate(
      { id, archived },
      {
        onSuccess: () =>
          setSaid({
            words: archived ? "Out of the lists, with everything kept." : "Back in the lists.",
            undo: () => put(!archived),
          }),
      },
    );
  return (
    <article aria-label={person.name}>
      <p className="min-[900px]:hidden">
        <Link className="link inline-flex min-h-[44px] items-center" to="/roster">
          Roster
        </Link>
      </p>
      <header className="flex flex-wrap items-end justify-between gap-3 pb-3">
        <div>
          <h1>{person.name}</h1>
          <p className="quiet">{line(page)}</p>
        </div>
        <div className="flex flex-wrap gap-2">
          <button type="button" className="act" onClick={() => setOpen("edit")}>
            Edit
          </button>
          <button type="button" className="act" disabled={archive.isPending} onClick={() => put(!person.archived)}>
            {person.archived ? "Bring back" : "Archive"}
          </button>
          <button type="button" className="act" onClick={() => setOpen("knock")}>
            Knock to the head
          </button>
          <button type="button" className="act main" onClick={() => setOpen("test")}>
            New test
          </button>
        </div>
      </header>
      {said && (
        <p role="status" className="flex flex-wrap items-center gap-3 border-t border-[var(--rule)] py-2">
          {said.words}
          <button
            type="button"
            className="act"
            onClick={() => {
              setSaid(null);
              said.undo();
            }}
          >
            Undo
          </button>
        </p>
      )}
      {(act.error ?? archive.error ?? undoEdit.error) && (
        <p role="alert" className="pb-2">
          <span className="seal">Not done</span> {(act.error ?? archive.error ?? undoEdit.error)?.message}
        </p>
      )}
      <Knocks page={page} act={act} />
      <div className="ink-t grid gap-x-8 gap-y-5 pt-3 pb-5 min-[1100px]:grid-cols-3">
        <Profile person={person} page={page} />
        <Screening page={page} act={act} />
        <Limits page={page} act={act} />
      </div>
      <StrikeTest page={page} onNew={() => setOpen("test")} />
      <div className="ink-t grid gap-x-12 gap-y-6 pt-3 min-[1100px]:grid-cols-[1.6fr_1fr]">
        <Has page={page} />
        <Tests page={page} act={act} />
      </div>
      <Data person={person} />
      {open === "edit" && (
        <PersonForm
          person={person}
          onDone={(saved, before) => {
            setOpen(null);
            if (before) setSaid({ words: `${saved.name} is saved.`, undo: () => undoEdit.mutate(before) });
          }}
          onClose={() => setOpen(null)}
        />
      )}
      {open === "knock" && <NewKnock page={page} act={act} onClose={() => setOpen(null)} />}
      {open === "test" && <NewTest page={page} act={act} onClose={() => setOpen(null)} />}
    </article>
  );
}

/** Sport, age, lead and bout in a line. */
function line({ person, fight }: Page): string {
  const lead = person.stance === "southpaw" ? "right lead" : "left lead";
  const bout = fight ? `. Bout on ${day(fight.on)}` : "";
  return capital(`${person.sport || `at ${person.level} level`}, ${person.age_years}, ${lead}${bout}`);
}

function Profile({ person, page: { fight } }: { person: Person; page: Page }) {
  const rows: [string, string][] = [
    ["Level", person.level],
    ["Mass", `${person.mass_kg} kg`],
    ["Born", String(person.birth_year)],
    ["Rules", person.rule_set ?? "none"],
  ];
  if (fight) {
    rows.push(["Bout", fight.days === 0 ? "today" : `in ${fight.days} ${fight.days === 1 ? "day" : "days"}`]);
    rows.push(["Last lactic day", day(fight.last_lactic_on)]);
  }
  if (person.heart_rate_lowering_medication) rows.push(["Heart rate", "lowered by medication: effort leads"]);
  return (
    <section aria-label="Profile">
      <h2>Profile</h2>
      <dl>
        {rows.map(([name, value]) => (
          <div key={name} className="rule-t grid grid-cols-[110px_1fr] py-[5px]">
            <dt className="quiet">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** Everything that is kept of somebody: taken out, or erased for good. */
function Data({ person }: { person: Person }) {
  const navigate = useNavigate();
  const changed = useChanged();
  const owner = useQuery(me).data?.role === "owner";
  const [asking, setAsking] = useState(false);
  const path = { person_id: person.id };
  const erase = useMutation({
    mutationFn: () => need(api.DELETE("/api/people/{person_id}/data", { params: { path } })),
    onSuccess: async () => {
      await navigate("/roster", { replace: true });
      await changed();
    },
  });
  return (
    <section aria-label="Data" className="ink-t mt-6 flex flex-wrap items-center gap-3 pt-3">
      <a className="act" href={`/api/people/${person.id}/data`} download>
        Export all that is kept
      </a>
      {owner &&
        (asking ? (
          <>
            <span className="text-[13px]">
              Everything of {person.name} goes for good. What was done stays in the club's sums, without a name.
            </span>
            <button type="button" className="act main" disabled={erase.isPending} onClick={() => erase.mutate()}>
              {erase.isPending ? "Erasing …" : `Yes, erase ${person.name}`}
            </button>
            <button type="button" className="act" onClick={() => setAsking(false)}>
              Keep
            </button>
          </>
        ) : (
          <button type="button" className="act" onClick={() => setAsking(true)}>
            Erase
          </button>
        ))}
      {erase.error && <p role="alert">{erase.error.message}</p>}
    </section>
  );
}
