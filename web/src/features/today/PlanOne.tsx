import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useRef, useState } from "react";
import { api, need } from "../../api/client";
import { groups as groupsQuery, people as peopleQuery, sessions as sessionsQuery } from "../../api/queries";
import { once } from "../../domain/once";
import { nameAndSport } from "../../domain/person";
import { emptyDraft, stateOf } from "../../domain/session/draft";
import type { ToPlan } from "../../domain/toPlan";
import { faultOf, SelectField, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import { Tick } from "../../ui/Tick";

interface Props {
  on: string;
  /** What another page brought, if it did. */
  brought: ToPlan | null;
  onDone: (first: string) => void;
  onClose: () => void;
}

/** A session gets a day and an hour, and those it is for. */
export function PlanOne({ on: shown, brought, onDone, onClose }: Props) {
  const sessions = useQuery(sessionsQuery);
  const people = useQuery(peopleQuery).data ?? [];
  const groups = useQuery(groupsQuery).data ?? [];
  const [session, setSession] = useState("");
  const [on, setOn] = useState(shown);
  const [at, setAt] = useState("18:00");
  const [group, setGroup] = useState("");
  const [who, setWho] = useState<number[]>(brought?.people ?? []);
  const [until, setUntil] = useState("");
  const list = sessions.data ?? [];
  const chosen = session || String(brought?.sessionId ?? list[0]?.id ?? "");
  const ownId = useRef<number | null>(null);
  /** What was changed is saved as a session of its own, once, however often the plan is refused. */
  const sessionId = async () => {
    if (!brought?.changed) return Number(chosen);
    const body = { ...stateOf({ ...emptyDraft(), ...brought.changed }), revision: null, by_itself: false };
    ownId.current ??= (
      await once(["plan changed", body], (headers) => need(api.POST("/api/sessions", { body, headers })))
    ).id;
    return ownId.current;
  };
  const plan = useMutation({
    mutationFn: async () => {
      const body = {
        session_id: await sessionId(),
        on,
        at,
        group_id: group ? Number(group) : null,
        people: who,
        until: until || null,
      };
      return once(["plan", body], (headers) => need(api.POST("/api/planned", { body, headers })));
    },
    onSuccess: () => onDone(on),
  });
  function submit(event: FormEvent) {
    event.preventDefault();
    plan.mutate();
  }
  const fault = (field: string) => faultOf(plan.error, field);
  return (
    <Sheet label="Plan one" className="w-[min(560px,calc(100vw-32px))]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-4">
        <h2>Plan one</h2>
        {brought?.changed ? (
          <p>
            <b>{brought.title}</b>, saved in the library as a session of its own.
          </p>
        ) : sessions.data?.length === 0 ? (
          <p>There is no session in the library yet. Make one on the bench and save it first.</p>
        ) : (
          <SelectField
            label="Session"
            value={chosen}
            fault={fault("session_id")}
            options={list.map((row) => ({ id: String(row.id), name: row.title }))}
            onChange={setSession}
          />
        )}
        <div className="grid items-start gap-4 min-[480px]:grid-cols-3">
          <TextField
            label="Day"
            type="date"
            required
            value={on}
            fault={fault("on")}
            onChange={(event) => setOn(event.target.value)}
          />
          <TextField
            label="Hour"
            type="time"
            required
            value={at}
            fault={fault("at")}
            onChange={(event) => setAt(event.target.value)}
          />
          <TextField
            label="Every week until"
            hint="Left open, once."
            type="date"
            value={until}
            fault={fault("until")}
            onChange={(event) => setUntil(event.target.value)}
          />
        </div>
        <SelectField
          label="Group"
          value={group}
          none="no group"
          options={groups.map((each) => ({ id: String(each.id), name: `${each.name}, ${each.people}` }))}
          onChange={setGroup}
        />
        <fieldset className="max-h-[220px] overflow-y-auto border border-[var(--rule)] px-3 py-1">
          <legend className="label-text">And these people</legend>
          {people.map((person) => (
            <Tick
              key={person.id}
              label={nameAndSport(person)}
              on={who.includes(person.id)}
              onChange={(ticked) => setWho(ticked ? [...who, person.id] : who.filter((id) => id !== person.id))}
            />
          ))}
          {people.length === 0 && <p className="quiet py-1">Nobody on the roster yet.</p>}
        </fieldset>
        <FormEnd
          word="Plan it"
          busyWord="Planning …"
          busy={plan.isPending}
          off={!chosen}
          error={plan.error}
          fields={["session_id", "on", "at", "until"]}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}
