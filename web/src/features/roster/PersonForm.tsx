import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { groups as groupsQuery, vocabulary } from "../../api/queries";
import { faultOf, SelectField, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import { Tick } from "../../ui/Tick";
import { entered, type Person, useSavePerson } from "./useRoster";

type PersonIn = Schemas["PersonIn"];

const LEVELS = [
  { id: "beginner", name: "beginner" },
  { id: "club", name: "club" },
  { id: "fighter", name: "fighter" },
] as const;
const FIELDS = ["name", "birth_year", "mass_kg", "level", "vo2max_ml_kg_min", "fight_on", "groups", "sport"];

const FOUR = { name: "", birth_year: 0, mass_kg: 0, level: "club" };
const UNSAID = { sport: "", stance: "orthodox" as const, heart_rate_lowering_medication: false, groups: [] };

interface Props {
  /** Null for somebody new. */
  person: Person | null;
  onDone: (saved: Person, before: PersonIn | null) => void;
  onClose: () => void;
}

/** Who somebody is: four fields are enough, all else has a default that says it is one. */
export function PersonForm({ person, onDone, onClose }: Props) {
  const before = person ? entered(person) : null;
  const [name, setName] = useState(before?.name ?? "");
  const [year, setYear] = useState(before ? String(before.birth_year) : "");
  const [mass, setMass] = useState(before ? String(before.mass_kg) : "");
  const [level, setLevel] = useState<PersonIn["level"]>(before?.level ?? "club");
  const [more, setMore] = useState<Omit<PersonIn, keyof typeof FOUR>>(before ?? UNSAID);
  const [vo2max, setVo2max] = useState(before?.vo2max_ml_kg_min ? String(before.vo2max_ml_kg_min) : "");
  const save = useSavePerson(person?.id ?? null);
  const words = useQuery(vocabulary).data;
  const groups = useQuery(groupsQuery).data ?? [];
  const fault = (field: string) => faultOf(save.error, field);
  const set = (change: Partial<PersonIn>) => setMore({ ...more, ...change });
  const inGroups = more.groups ?? [];

  function submit(event: FormEvent) {
    event.preventDefault();
    const body: PersonIn = {
      ...more,
      name,
      birth_year: Number(year),
      mass_kg: Number(mass.replace(",", ".")),
      level,
      vo2max_ml_kg_min: vo2max.trim() ? Number(vo2max.replace(",", ".")) : null,
    };
    save.mutate(body, { onSuccess: (saved) => onDone(saved, before) });
  }
  return (
    <Sheet
      label={person ? `Edit ${person.name}` : "New athlete"}
      className="w-[min(640px,calc(100vw-32px))]"
      onClose={onClose}
    >
      <form onSubmit={submit} className="grid gap-4">
        <h2>{person ? `Edit ${person.name}` : "New athlete"}</h2>
        <div className="grid items-start gap-4 min-[560px]:grid-cols-2">
          <TextField
            label="Name"
            required
            maxLength={120}
            value={name}
            fault={fault("name")}
            onChange={(event) => setName(event.target.value)}
          />
          <TextField
            label="Year of birth"
            hint="Gives the highest heart rate and VO₂max where no test does, and the rules for under 16."
            required
            inputMode="numeric"
            pattern="[0-9]{4}"
            title="four digits, such as 1996"
            value={year}
            fault={fault("birth_year")}
            onChange={(event) => setYear(event.target.value)}
          />
          <TextField
            label="Mass, kg"
            hint="Energy in kcal goes with it."
            required
            inputMode="decimal"
            pattern="[0-9]{2,3}([.,][0-9]+)?"
            title="kilograms, such as 63.5"
            value={mass}
            fault={fault("mass_kg")}
            onChange={(event) => setMass(event.target.value)}
          />
          <SelectField
            label="Level"
            hint="Ceilings of hard minutes and strikes, and the defaults of what is not tested."
            value={level}
            options={LEVELS}
            fault={fault("level")}
            onChange={(id) => setLevel(id as PersonIn["level"])}
          />
        </div>
        <details className="ink-t pt-3" open={person !== null}>
          <summary className="cursor-pointer font-semibold">All else, where you know it</summary>
          <div className="grid items-start gap-4 pt-3 min-[560px]:grid-cols-2">
            <TextField
              label="Sport and class"
              maxLength={60}
              placeholder="kickboxer, 61 kg"
              value={more.sport ?? ""}
              fault={fault("sport")}
              onChange={(event) => set({ sport: event.target.value })}
            />
            <SelectField
              label="Sex"
              hint="For the formulas of heart rate and VO₂max; left open, the middle of both."
              value={more.sex ?? ""}
              none="not said"
              options={[
                { id: "female", name: "female" },
                { id: "male", name: "male" },
              ]}
              onChange={(id) => set({ sex: (id || null) as PersonIn["sex"] })}
            />
            <SelectField
              label="Lead"
              hint="Which hand and leg strike in a combination."
              value={more.stance ?? "orthodox"}
              options={[
                { id: "orthodox", name: "left leads (orthodox)" },
                { id: "southpaw", name: "right leads (southpaw)" },
              ]}
              onChange={(id) => set({ stance: id as PersonIn["stance"] })}
            />
            <SelectField
              label="Rules"
              hint="The rounds that a rehearsal is held against."
              value={more.rule_set ?? ""}
              none="none"
              options={words?.rules ?? []}
              onChange={(id) => set({ rule_set: (id || null) as PersonIn["rule_set"] })}
            />
            <TextField
              label="Next bout"
              hint="Closes lactic work in time, and tells the last day for it."
              type="date"
              value={more.fight_on ?? ""}
              fault={fault("fight_on")}
              onChange={(event) => set({ fight_on: event.target.value || null })}
            />
            <TextField
              label="VO₂max of a laboratory, mL/kg/min"
              hint="Left open, a run test gives it, or the level."
              inputMode="decimal"
              value={vo2max}
              fault={fault("vo2max_ml_kg_min")}
              onChange={(event) => setVo2max(event.target.value)}
            />
          </div>
          <div className="pt-3">
            <Tick
              label="Takes medication that lowers the heart rate: effort leads, no heart figures are told"
              on={more.heart_rate_lowering_medication ?? false}
              onChange={(on) => set({ heart_rate_lowering_medication: on })}
            />
          </div>
          {groups.length > 0 && (
            <fieldset className="flex flex-wrap gap-x-5 pt-2">
              <legend className="label-text">Groups</legend>
              {groups.map((group) => (
                <Tick
                  key={group.id}
                  label={group.name}
                  on={inGroups.includes(group.id)}
                  onChange={(on) =>
                    set({ groups: on ? [...inGroups, group.id] : inGroups.filter((each) => each !== group.id) })
                  }
                />
              ))}
            </fieldset>
          )}
        </details>
        <FormEnd
          word={person ? "Save" : "Add"}
          busyWord="Saving …"
          busy={save.isPending}
          error={save.error}
          fields={FIELDS}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}
