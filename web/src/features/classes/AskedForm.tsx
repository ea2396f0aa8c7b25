import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { groups as groupsQuery, people as peopleQuery, vocabulary as vocabularyQuery } from "../../api/queries";
import { SelectField, TextField } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { type Asked, type Comer, guest, ofSize, without } from "./plan";

const STATIONS = [
  "skip",
  "squats",
  "plank",
  "push-ups",
  "lunges",
  "sit-ups",
  "high-knees",
  "core",
  "carry",
  "burpees",
  "mountain-climbers",
  "jumping-jacks",
  "footwork",
  "shadow",
] as const;

interface Props {
  asked: Asked;
  needs: Schemas["ClassNeeds"];
  word: string;
  onDone: (asked: Asked) => void;
  onClose: () => void;
}

/** All that is asked of a class, as a form: who comes, what there is, how long, what for. */
export function AskedForm({ asked, needs, word, onDone, onClose }: Props) {
  const [told, setTold] = useState(asked);
  const groups = useQuery(groupsQuery).data ?? [];
  const targets = useQuery(vocabularyQuery).data?.targets ?? [];
  const set = (change: Partial<Asked>) => setTold((before) => ({ ...before, ...change }));
  const number = (name: keyof Asked, label: string, min: number, max: number, hint?: string) => (
    <TextField
      label={label}
      hint={hint}
      type="number"
      min={min}
      max={max}
      required
      value={Number.isNaN(told[name]) ? "" : String(told[name] ?? "")}
      onChange={(event) => set({ [name]: event.target.valueAsNumber } as Partial<Asked>)}
    />
  );
  return (
    <Sheet label="What is asked of the class" className="w-[min(720px,calc(100vw-16px))]" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onDone(told);
        }}
      >
        <div className="flex items-baseline justify-between gap-4">
          <h2>What is asked of the class</h2>
          <button type="button" className="link min-h-[44px]" onClick={onClose}>
            Close
          </button>
        </div>
        <div className="grid gap-3 pt-2 min-[560px]:grid-cols-3">
          <TextField
            label="Title"
            hint="Empty for its school and group."
            maxLength={120}
            value={told.title ?? ""}
            onChange={(event) => set({ title: event.target.value })}
          />
          <TextField
            label="Day"
            type="date"
            hint="With a day it stands in Today."
            value={told.on ?? ""}
            onChange={(event) => set({ on: event.target.value || null })}
          />
          <TextField
            label="Hour"
            type="time"
            value={(told.at ?? "").slice(0, 5)}
            onChange={(event) => set({ at: event.target.value || null })}
          />
          <SelectField
            label="Purpose"
            value={told.target ?? ""}
            none="what it trains best"
            options={targets}
            onChange={(id) => set({ target: (id || null) as Asked["target"] })}
          />
          <SelectField
            label="School"
            value={told.school ?? "waves"}
            options={needs.schools.map((each) => ({ id: String(each.id), name: String(each.name) }))}
            onChange={(id) =>
              set({ school: id as Asked["school"], waves: null, rounds: null, change_s: null, put: [] })
            }
          />
          <TextField
            label="One round of the work"
            hint="Shorthand, such as 20 power, 10 rest."
            required
            maxLength={400}
            value={told.pattern ?? ""}
            onChange={(event) => set({ pattern: event.target.value })}
          />
          {number("minutes", "Minutes in all", 5, 180)}
          {number("warm_up_min", "Of them warm-up", 0, 60)}
          {number("cool_down_min", "Of them cool-down", 0, 60)}
          {number("bags", "Bags", 0, 30)}
          {number("pad_pairs", "Pairs of pads", 0, 30)}
          <TextField
            label="Floor spots"
            hint="Empty for as many as anybody needs."
            type="number"
            min={0}
            max={60}
            value={told.floor ?? ""}
            onChange={(event) => set({ floor: event.target.value === "" ? null : event.target.valueAsNumber })}
          />
          <SelectField
            label="Off the bag"
            value={told.floor_does ?? "shadow"}
            options={needs.floor_does.map((each) => ({ id: String(each.id), name: String(each.word) }))}
            onChange={(id) => set({ floor_does: id as Asked["floor_does"] })}
          />
          <TextField
            label="Combination"
            hint="Shown in a circuit, struck to the beat; empty for 1-2-3."
            maxLength={200}
            value={told.combination ?? ""}
            onChange={(event) => set({ combination: event.target.value })}
          />
          {number("beats", "Beats of the music", 60, 200)}
        </div>
        <label className="flex min-h-[44px] items-center gap-2 pt-1">
          <input
            type="checkbox"
            checked={told.coach_holds ?? false}
            onChange={(event) => set({ coach_holds: event.target.checked })}
          />
          The coach holds for one person at a time
        </label>
        <fieldset className="rule-t pt-2">
          <legend className="label-text pt-2">Stations off the bag, in a circuit</legend>
          <div className="flex flex-wrap gap-x-4">
            {STATIONS.map((each) => {
              const has = told.stations?.includes(each) ?? false;
              const other = has ? told.stations?.filter((one) => one !== each) : [...(told.stations ?? []), each];
              return (
                <label key={each} className="flex min-h-[34px] items-center gap-2 max-[899px]:min-h-[44px]">
                  <input type="checkbox" checked={has} onChange={() => set({ stations: other ?? [] })} />
                  {each.replaceAll("-", " ")}
                </label>
              );
            })}
          </div>
        </fieldset>
        <Comers told={told} groups={groups} onChange={setTold} />
        <p className="flex justify-end gap-2 pt-4">
          <button type="button" className="act" onClick={onClose}>
            Cancel
          </button>
          <button type="submit" className="act main">
            {word}
          </button>
        </p>
      </form>
    </Sheet>
  );
}

interface ComersProps {
  told: Asked;
  groups: Schemas["GroupOut"][];
  onChange: (asked: Asked) => void;
}

/** Who comes: a group of the roster, ticked; a number; names typed at the door. */
function Comers({ told, groups, onChange }: ComersProps) {
  const roster = useQuery(peopleQuery).data ?? [];
  const [name, setName] = useState("");
  const there = new Set(told.people.map((each) => each.person_id));
  const add = (comer: Comer) => onChange({ ...told, people: [...told.people, comer] });
  const comer = (id: number, called: string): Comer => ({
    uid: `person-${id}`,
    person_id: id,
    name: called,
    easy: false,
  });
  function group(id: string) {
    const chosen = groups.find((each) => String(each.id) === id);
    const people = roster.filter((each) => chosen && each.groups.includes(chosen.id));
    const named = people.map((each) => comer(each.id, each.name));
    onChange({
      ...told,
      group_id: chosen?.id ?? null,
      together: [],
      put: [],
      people: named.length ? named : told.people,
    });
  }
  const listed = told.group_id
    ? roster.filter((each) => each.groups.includes(told.group_id ?? 0) || there.has(each.id))
    : roster.filter((each) => there.has(each.id));
  const guests = told.people.filter((each) => each.person_id == null);
  return (
    <fieldset className="rule-t mt-2 pt-2">
      <legend className="label-text pt-2">Who comes: {told.people.length}</legend>
      <div className="grid gap-3 min-[560px]:grid-cols-3">
        <SelectField
          label="Group"
          value={String(told.group_id ?? "")}
          none="whoever comes"
          options={groups.map((each) => ({ id: String(each.id), name: each.name }))}
          onChange={group}
        />
        <TextField
          label="How many"
          hint="Guests make up the number."
          type="number"
          min={1}
          max={60}
          value={told.people.length}
          onChange={(event) => {
            const count = event.target.valueAsNumber;
            if (count >= 1 && count <= 60) onChange(ofSize(told, count));
          }}
        />
        <div className="flex items-end gap-2">
          <TextField
            label="A name at the door"
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== "Enter") return;
              event.preventDefault();
              if (name.trim()) add(guest(told, name.trim()));
              setName("");
            }}
          />
          <button
            type="button"
            className="act"
            disabled={!name.trim() || told.people.length >= 60}
            onClick={() => {
              add(guest(told, name.trim()));
              setName("");
            }}
          >
            Add
          </button>
        </div>
      </div>
      <div className="flex flex-wrap gap-x-4 pt-1">
        {listed.map((each) => (
          <label key={each.id} className="flex min-h-[34px] items-center gap-2 max-[899px]:min-h-[44px]">
            <input
              type="checkbox"
              checked={there.has(each.id)}
              onChange={() =>
                there.has(each.id)
                  ? told.people.length > 1 && onChange(without(told, `person-${each.id}`))
                  : add(comer(each.id, each.name))
              }
            />
            {each.name}
          </label>
        ))}
        {guests.map((each) => (
          <span key={each.uid} className="flex min-h-[34px] items-center gap-1 max-[899px]:min-h-[44px]">
            {each.name}
            <button
              type="button"
              className="link px-1"
              aria-label={`Take ${each.name} out`}
              disabled={told.people.length === 1}
              onClick={() => onChange(without(told, each.uid))}
            >
              ×
            </button>
          </span>
        ))}
      </div>
    </fieldset>
  );
}
