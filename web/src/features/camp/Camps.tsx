import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { camps as campsQuery, groups as groupsQuery, people as peopleQuery } from "../../api/queries";
import { once } from "../../domain/once";
import { nameAndSport } from "../../domain/person";
import { today } from "../../domain/time";
import { Deleting } from "../../ui/Deleting";
import { Notice } from "../../ui/Notice";
import { Sheet } from "../../ui/Sheet";
import type { Asked } from "./CampFields";
import { CampForm } from "./CampForm";
import { dayAfter, shortDay, titleOf, weekdayOf } from "./plan";

const FIRST: Omit<Asked, "start"> = {
  bout_on: null,
  weeks: 6,
  rule_set: null,
  days: (["mon", "tue", "thu", "sat"] as const).map((weekday) => ({ weekday, at: "18:00", minutes: 75 })),
  most_a_week: 4,
  weights: {},
  bases: {},
  fixed: [],
  ease_every: 4,
  lactic_cutoff_days: null,
  most_climb: 0.15,
  softened: [],
};

/** The next Monday, or today where it is one. */
function nextMonday(): string {
  let day = today();
  while (weekdayOf(day) !== "mon") day = dayAfter(day, 1);
  return day;
}

/** Every camp of the club, and the way to a new one. */
export function Camps() {
  const query = useQuery(campsQuery);
  const [making, setMaking] = useState(false);
  if (!query.data) return <Notice asked={query} title="Opening the camps" />;
  return (
    <main className="px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-end justify-between gap-3 pb-4">
        <div>
          <h1>Camp</h1>
          <p className="quiet">The weeks to a bout, or a block of weeks: solved, pushed about, handed to each day.</p>
        </div>
        <button type="button" className="act main" onClick={() => setMaking(true)}>
          New camp
        </button>
      </header>
      {query.data.length === 0 ? (
        <Notice
          title="No camp yet"
          text="Give a person or a group a date, and the weeks to it are solved by the trade's rules: lactic days apart, one knob a week, weeks that ease, a taper."
        >
          <button type="button" className="act main" onClick={() => setMaking(true)}>
            Make the first
          </button>
        </Notice>
      ) : (
        <ul aria-label="Camps" className="ink-t">
          {query.data.map((row) => (
            <Row key={row.id} row={row} onGone={() => void query.refetch()} />
          ))}
        </ul>
      )}
      {making && <Making onClose={() => setMaking(false)} />}
    </main>
  );
}

function Row({ row, onGone }: { row: Schemas["CampRow"]; onGone: () => void }) {
  const title = titleOf(row);
  return (
    <li className="rule-t flex flex-wrap items-center justify-between gap-3 py-2">
      <Link className="min-h-[44px] min-w-[240px] flex-1 py-1 hover:underline" to={`/camp/${row.id}`}>
        <b>{title}</b>
        <span className="quiet block text-[13px]">
          {row.who}, from {shortDay(row.start)};{" "}
          {row.sessions === 0 ? "not solved yet" : `${row.done} of ${row.sessions} sessions done`}
        </span>
      </Link>
      <Deleting
        name={`${title} of ${row.who}`}
        warning="What is still to come goes off Today too."
        remove={() => need(api.DELETE("/api/camps/{camp_id}", { params: { path: { camp_id: row.id } } }))}
        onGone={onGone}
      />
    </li>
  );
}

function Making({ onClose }: { onClose: () => void }) {
  const people = useQuery(peopleQuery);
  const groups = useQuery(groupsQuery);
  const late = people.data ? groups : people;
  return people.data && groups.data && people.data.length + groups.data.length > 0 ? (
    <NewCamp people={people.data} groups={groups.data} onClose={onClose} />
  ) : (
    <Sheet label="New camp" className="w-[min(760px,calc(100vw-16px))]" onClose={onClose}>
      {late.data ? (
        <Notice
          title="Nobody on the roster yet"
          text="Put somebody on the roster first: a camp is for a person or a group."
        />
      ) : (
        <Notice asked={late} title="Opening the roster" />
      )}
    </Sheet>
  );
}

type Somebody = Schemas["PersonOut"];

/** What is known of somebody that a camp begins from. */
function knownOf(person: Somebody | undefined) {
  const bout = person?.fight_on;
  return { bout_on: bout && bout > nextMonday() ? bout : null, rule_set: person?.rule_set_id ?? null };
}

interface NewProps {
  people: Somebody[];
  groups: Schemas["GroupOut"][];
  onClose: () => void;
}

function NewCamp({ people, groups, onClose }: NewProps) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const options = [
    ...people.map((each) => ({ id: `p${each.id}`, name: nameAndSport(each) })),
    ...groups.map((each) => ({ id: `g${each.id}`, name: `Group: ${each.name}` })),
  ];
  const [soonest] = people
    .filter((person) => person.fight_on && person.fight_on > today())
    .toSorted((one, two) => String(one.fight_on).localeCompare(String(two.fight_on)));
  const [who, setWho] = useState(soonest ? `p${soonest.id}` : (options[0]?.id ?? ""));
  const personOf = (chosen: string) => people.find((each) => `p${each.id}` === chosen);
  const make = useMutation({
    mutationFn: (asked: Asked) => {
      const id = Number(who.slice(1));
      const body = personOf(who) ? { person_id: id, group_id: null, asked } : { person_id: null, group_id: id, asked };
      return once(["camp", body], (headers) => need(api.POST("/api/camps", { body, headers })));
    },
    onSuccess: async (made) => {
      await askAnew(client, { queryKey: campsQuery.queryKey });
      navigate(`/camp/${made.id}`, { state: { solve: true } });
    },
  });
  return (
    <CampForm
      title="New camp"
      word="Make it and solve"
      asked={{ ...FIRST, start: nextMonday(), ...knownOf(personOf(who)) }}
      who={{
        value: who,
        options,
        onChange: (chosen) => {
          setWho(chosen);
          return knownOf(personOf(chosen));
        },
      }}
      busy={make.isPending}
      error={make.error}
      onDone={(asked) => make.mutate(asked)}
      onClose={onClose}
    />
  );
}
