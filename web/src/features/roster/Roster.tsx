import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { NavLink, useNavigate, useParams } from "react-router";
import { api, need } from "../../api/client";
import { archived as archivedQuery, groups as groupsQuery, people as peopleQuery } from "../../api/queries";
import { once } from "../../domain/once";
import { holdsAll } from "../../ui/holdsAll";
import { ROSTER, useKeys } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { ImportPeople } from "./ImportPeople";
import { PersonForm } from "./PersonForm";
import { PersonPage } from "./PersonPage";
import { type Person, useArchive, useChanged } from "./useRoster";

/** The club's people: the list at the left, somebody's page beside it; on a phone one after the other. */
export function Roster() {
  const chosen = Number(useParams().personId) || null;
  const people = useQuery(peopleQuery);
  const navigate = useNavigate();
  const [adding, setAdding] = useState(false);
  const [importing, setImporting] = useState(false);
  useKeys(ROSTER, { add: () => setAdding(true) });
  if (!people.data) return <Notice asked={people} title="Opening the roster" />;
  const shown = chosen ?? people.data[0]?.id ?? null;
  return (
    <div className="min-[900px]:grid min-[900px]:min-h-dvh min-[900px]:grid-cols-[232px_1fr]">
      <aside
        className={`px-4 pt-[18px] pb-8 min-[900px]:sticky min-[900px]:top-0 min-[900px]:h-dvh min-[900px]:overflow-y-auto min-[900px]:border-r min-[900px]:border-[var(--rule)] min-[900px]:px-0 min-[900px]:pl-6 ${chosen ? "max-[899px]:hidden" : ""}`}
      >
        <List
          people={people.data}
          shown={chosen ? shown : null}
          onAdd={() => setAdding(true)}
          onImport={() => setImporting(true)}
        />
      </aside>
      {shown === null ? (
        <Notice
          title="Nobody on the roster yet"
          text="Name, year of birth, mass and level are enough to begin with; all else has a default that says it is one."
        >
          <button type="button" className="act main" onClick={() => setAdding(true)}>
            New athlete
          </button>
          <button type="button" className="act" onClick={() => setImporting(true)}>
            Import athletes from a file
          </button>
        </Notice>
      ) : (
        <main className={`min-w-0 px-4 pt-[18px] pb-8 min-[900px]:px-6 ${chosen ? "" : "max-[899px]:hidden"}`}>
          <PersonPage key={shown} id={shown} />
        </main>
      )}
      {importing && <ImportPeople onClose={() => setImporting(false)} />}
      {adding && (
        <PersonForm
          person={null}
          onDone={(saved) => {
            setAdding(false);
            void navigate(`/roster/${saved.id}`);
          }}
          onClose={() => setAdding(false)}
        />
      )}
    </div>
  );
}

interface ListProps {
  people: Person[];
  /** Whose page is open; null where the list alone is. */
  shown: number | null;
  onAdd: () => void;
  onImport: () => void;
}

function List({ people, shown, onAdd, onImport }: ListProps) {
  const groups = useQuery(groupsQuery).data ?? [];
  const [search, setSearch] = useState("");
  const [group, setGroup] = useState<number | null>(null);
  const found = people.filter(
    (person) =>
      (group === null || person.groups.includes(group)) && holdsAll(search, [person.name, person.sport, person.level]),
  );
  const count = (number: number, one: string, many: string) => `${number} ${number === 1 ? one : many}`;
  return (
    <>
      <h1>Roster</h1>
      <p className="quiet">
        {count(people.length, "athlete", "athletes")}, {count(groups.length, "group", "groups")}
      </p>
      <p className="pt-3 min-[900px]:pr-6">
        <button type="button" className="act main w-full" onClick={onAdd}>
          <span>
            <u>N</u>ew athlete
          </span>
        </button>
        <button type="button" className="link mt-2 text-[13px]" onClick={onImport}>
          Import athletes from a file
        </button>
      </p>
      <label className="label-text block pt-3 min-[900px]:pr-6">
        <span className="sr-only">Search people</span>
        <input
          type="search"
          className="field"
          placeholder="Search: name, sport, level"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </label>
      <h2 className="label-text pt-4 pb-1">Athletes</h2>
      {found.length === 0 && people.length > 0 && (
        <p className="quiet pr-4 text-[13px]">
          Nobody has all of this.{" "}
          <button
            type="button"
            className="link"
            onClick={() => {
              setSearch("");
              setGroup(null);
            }}
          >
            Show all
          </button>
        </p>
      )}
      <ul aria-label="Athletes">
        {found.map((person) => (
          <li key={person.id} className="border-t border-[var(--rule)]">
            <NavLink
              to={`/roster/${person.id}`}
              className={({ isActive }) =>
                `block px-3 py-[6px] max-[899px]:min-h-[52px] ${isActive || person.id === shown ? "bg-[var(--ink)] text-[var(--sheet)]" : "hover:bg-[#E9E3D5]"}`
              }
            >
              <b className="block">{person.name}</b>
              <span className="flex flex-wrap items-center gap-x-2 text-[13px]">
                {person.sport || person.level}
                {person.knocked && <span className="seal">Head</span>}
                {person.limits.length > 0 && <span className="seal">Limit</span>}
                {person.screening === null && <span className="seal light bg-[var(--sheet)]">Form</span>}
              </span>
            </NavLink>
          </li>
        ))}
      </ul>
      <Groups chosen={group} onChoose={setGroup} />
      <Archived />
    </>
  );
}

/** The groups: choosing one narrows the list; they are named, renamed and let go here. */
function Groups({ chosen, onChoose }: { chosen: number | null; onChoose: (group: number | null) => void }) {
  const groups = useQuery(groupsQuery).data ?? [];
  const changed = useChanged();
  const [name, setName] = useState("");
  const [asking, setAsking] = useState(false);
  const add = useMutation({
    mutationFn: () =>
      once(["add group", name], (headers) => need(api.POST("/api/groups", { body: { name }, headers }))),
    onSuccess: () => {
      setName("");
      return changed();
    },
  });
  const remove = useMutation({
    mutationFn: (id: number) => need(api.DELETE("/api/groups/{group_id}", { params: { path: { group_id: id } } })),
    onSuccess: () => {
      onChoose(null);
      setAsking(false);
      return changed();
    },
  });
  const picked = groups.find((each) => each.id === chosen);
  return (
    <section aria-label="Groups" className="min-[900px]:pr-6">
      <h2 className="label-text pt-6 pb-1">Groups</h2>
      {groups.length === 0 && <p className="quiet text-[13px]">None yet. A group is trained and planned together.</p>}
      <ul>
        {groups.map((group) => (
          <li key={group.id} className="border-t border-[var(--rule)]">
            <button
              type="button"
              aria-pressed={chosen === group.id}
              className={`block w-full cursor-pointer px-3 py-[6px] text-left max-[899px]:min-h-[44px] ${chosen === group.id ? "bg-[var(--ink-2)] text-[var(--sheet)]" : "hover:bg-[#E9E3D5]"}`}
              onClick={() => onChoose(chosen === group.id ? null : group.id)}
            >
              <b>{group.name}</b> <span className="text-[13px]">{group.people}</span>
            </button>
          </li>
        ))}
      </ul>
      {picked &&
        (asking ? (
          <p className="flex flex-wrap items-center gap-2 pt-2 text-[13px]">
            <button type="button" className="act" disabled={remove.isPending} onClick={() => remove.mutate(picked.id)}>
              Yes, delete {picked.name}
            </button>
            <button type="button" className="act" onClick={() => setAsking(false)}>
              Keep it
            </button>
            <span className="quiet">Its people stay.</span>
          </p>
        ) : (
          <p className="pt-2">
            <button type="button" className="act" onClick={() => setAsking(true)}>
              Delete this group
            </button>
          </p>
        ))}
      <form
        className="flex gap-2 pt-2"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <input
          className="field"
          aria-label="Name of a new group"
          placeholder="New group"
          required
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="act" disabled={add.isPending}>
          Add group
        </button>
      </form>
      {(add.error ?? remove.error) && (
        <p role="alert" className="pt-1 text-[13px]">
          {(add.error ?? remove.error)?.message}
        </p>
      )}
    </section>
  );
}

/** Those who are out of the lists, with the way back. */
function Archived() {
  const [open, setOpen] = useState(false);
  const people = useQuery({ ...archivedQuery, enabled: open });
  const archive = useArchive();
  return (
    <details className="pt-6 text-[13px]" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer">Archived</summary>
      {people.data?.length === 0 && <p className="quiet pt-1">Nobody is archived.</p>}
      <ul aria-label="Archived">
        {(people.data ?? []).map((person) => (
          <li key={person.id} className="flex flex-wrap items-center justify-between gap-2 py-1 pr-4">
            <NavLink className="hover:underline" to={`/roster/${person.id}`}>
              {person.name}
            </NavLink>
            <button
              type="button"
              className="link min-h-[30px]"
              disabled={archive.isPending}
              onClick={() => archive.mutate({ id: person.id, archived: false })}
            >
              Bring back
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
