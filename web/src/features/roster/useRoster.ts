import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { people as peopleQuery, personPage } from "../../api/queries";
import { once } from "../../domain/once";

export type Page = Schemas["PersonPage"];
export type Person = Schemas["PersonOut"];
type PersonIn = Schemas["PersonIn"];

/** What is worked out from who somebody is. */
const DEPENDS = new Set([
  "people",
  "person",
  "groups",
  "evaluation",
  "nudges",
  "proposals",
  "on-floor",
  "run",
  "gate",
  "today",
]);

/** Asks anew for all that depends on who somebody is. */
export function useChanged() {
  const client = useQueryClient();
  return () => askAnew(client, { predicate: ({ queryKey }) => DEPENDS.has(String(queryKey[0])) });
}

/** Something done to somebody's page, which comes back as it then is. */
export function usePageAct(id: number) {
  const client = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (act: () => Promise<Page>) => act(),
    onSuccess: async (page) => {
      await changed();
      client.setQueryData(personPage(id).queryKey, page);
    },
  });
}

/** A field test of somebody: new, or brought back. */
export const keepTest = (personId: number, body: Schemas["FieldTestIn"]): Promise<Page> =>
  once(["test", personId, body], (headers) =>
    need(api.POST("/api/people/{person_id}/tests", { params: { path: { person_id: personId } }, body, headers })),
  );

/** Somebody entered: new, or changed. */
export function useSavePerson(id: number | null) {
  const changed = useChanged();
  return useMutation({
    mutationFn: (body: PersonIn) =>
      id === null
        ? once(["add person", body], (headers) => need(api.POST("/api/people", { body, headers })))
        : need(api.PUT("/api/people/{person_id}", { params: { path: { person_id: id } }, body })),
    onSuccess: changed,
  });
}

/** Out of the lists, or back into them. */
export function useArchive() {
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ id, archived }: { id: number; archived: boolean }) =>
      need(api.PUT("/api/people/{person_id}/archived", { params: { path: { person_id: id }, query: { archived } } })),
    onSuccess: changed,
  });
}

export const usePeople = () => useQuery(peopleQuery);

/** Somebody as they were entered. */
export function entered(person: Person): PersonIn {
  return {
    name: person.name,
    birth_year: person.birth_year,
    mass_kg: person.mass_kg,
    level: person.level,
    sport: person.sport,
    sex: person.sex,
    stance: person.stance,
    rule_set: person.rule_set_id,
    fight_on: person.fight_on,
    vo2max_ml_kg_min: person.vo2max_given,
    heart_rate_lowering_medication: person.heart_rate_lowering_medication,
    groups: person.groups,
  };
}
