import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { sessions as sessionsQuery, vocabulary } from "../../api/queries";
import { faultOf, SelectField, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import { Tick } from "../../ui/Tick";
import { type Asked, Days, Fixed } from "./CampFields";

const WEIGHTS = [
  { id: "", name: "as the rules ask" },
  { id: "0", name: "not at all" },
  { id: "1", name: "a little" },
  { id: "2", name: "some" },
  { id: "3", name: "much" },
];
const EASE = [
  { id: "3", name: "every third week" },
  { id: "4", name: "every fourth week" },
  { id: "0", name: "never" },
];
const FIELDS = [
  "start",
  "bout_on",
  "weeks",
  "days",
  "fixed",
  "weights",
  "most_a_week",
  "lactic_cutoff_days",
  "rule_set",
];

/** What is known of somebody: it takes the place of what was known of the one before, and of nothing else. */
type Known = Pick<Asked, "bout_on" | "rule_set">;

interface Props {
  title: string;
  word: string;
  asked: Asked;
  /** Whom it is for, where that is still to be chosen. */
  who?: { value: string; options: { id: string; name: string }[]; onChange: (id: string) => Known };
  busy: boolean;
  error: Error | null;
  onDone: (asked: Asked) => void;
  onClose: () => void;
}

/** What a coach asks of the weeks: till when, on which days, what matters, what is fixed. */
export function CampForm({ title, word, asked: before, who, busy, error, onDone, onClose }: Props) {
  const words = useQuery(vocabulary).data;
  const sessions = useQuery(sessionsQuery).data ?? [];
  const [asked, setAsked] = useState(before);
  const [block, setBlock] = useState(!before.bout_on);
  const set = (change: Partial<Asked>) => setAsked((now) => ({ ...now, ...change }));
  const fault = (field: string) => faultOf(error, field);
  function choose(whom: NonNullable<typeof who>, id: string) {
    const known = whom.onChange(id);
    set(known);
    setBlock(!known.bout_on);
  }
  const targets = words?.targets ?? [];
  function submit(event: FormEvent) {
    event.preventDefault();
    onDone({ ...asked, bout_on: block ? null : asked.bout_on || null, weeks: block ? (asked.weeks ?? 6) : null });
  }
  return (
    <Sheet label={title} className="w-[min(760px,calc(100vw-16px))]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-4">
        <h2>{title}</h2>
        {who && (
          <SelectField
            label="For"
            value={who.value}
            options={who.options}
            fault={fault("person_id")}
            onChange={(id) => choose(who, id)}
          />
        )}
        <div className="grid items-start gap-3 min-[560px]:grid-cols-3">
          <TextField
            label="First day"
            type="date"
            required
            value={asked.start}
            fault={fault("start")}
            onChange={(event) => set({ start: event.target.value })}
          />
          {block ? (
            <TextField
              label="Weeks"
              type="number"
              min={1}
              max={26}
              required
              value={asked.weeks ?? 6}
              fault={fault("weeks")}
              onChange={(event) => set({ weeks: Number(event.target.value) })}
            />
          ) : (
            <TextField
              label="Bout"
              type="date"
              required
              value={asked.bout_on ?? ""}
              fault={fault("bout_on")}
              onChange={(event) => set({ bout_on: event.target.value })}
            />
          )}
          <SelectField
            label="Rule set"
            value={asked.rule_set ?? ""}
            none="none"
            options={words?.rules ?? []}
            fault={fault("rule_set")}
            onChange={(id) => set({ rule_set: id || null })}
          />
        </div>
        <Tick label="No bout: a block of weeks" on={block} onChange={setBlock} />
        <Days asked={asked} fault={fault("days")} onChange={(days) => set({ days })} />
        <div className="grid items-start gap-3 min-[560px]:grid-cols-4">
          <TextField
            label="Most sessions a week"
            type="number"
            min={1}
            max={14}
            required
            value={asked.most_a_week}
            fault={fault("most_a_week")}
            onChange={(event) => set({ most_a_week: Number(event.target.value) })}
          />
          <SelectField
            label="Ease"
            value={String(asked.ease_every)}
            options={EASE}
            onChange={(id) => set({ ease_every: Number(id) as 0 | 3 | 4 })}
          />
          <TextField
            label="Last lactic day"
            hint="Days before the bout: the club's where left open, 7 the very latest."
            type="number"
            min={7}
            max={21}
            value={asked.lactic_cutoff_days ?? ""}
            fault={fault("lactic_cutoff_days")}
            onChange={(event) => set({ lactic_cutoff_days: event.target.value ? Number(event.target.value) : null })}
          />
          <TextField
            label="Climb, % a week"
            hint="Your own brake: no share is proven to keep anybody from harm."
            type="number"
            min={0}
            max={100}
            required
            value={Math.round(100 * (asked.most_climb ?? 0.15))}
            onChange={(event) => set({ most_climb: Number(event.target.value) / 100 })}
          />
        </div>
        <Fixed asked={asked} targets={targets} fault={fault("fixed")} onChange={(fixed) => set({ fixed })} />
        <details>
          <summary className="cursor-pointer py-1 font-semibold">What matters, and with which sessions</summary>
          {fault("weights") && <p role="alert">{fault("weights")}</p>}
          <p className="quiet text-[13px]">
            Once one purpose is weighed here, those that are not weigh nothing. Where no session is chosen, one is
            proposed.
          </p>
          <ul className="pt-1">
            {targets.map((target) => (
              <li key={target.id} className="rule-t grid items-end gap-2 py-2 min-[560px]:grid-cols-[1fr_170px_240px]">
                <b className="self-center text-[14px] first-letter:uppercase">{target.name}</b>
                <SelectField
                  label={`Weight of ${target.name}`}
                  value={String(asked.weights?.[target.id] ?? "")}
                  options={WEIGHTS}
                  onChange={(id) => set({ weights: placedIn(asked.weights, target.id, id === "" ? null : Number(id)) })}
                />
                <SelectField
                  label={`Session for ${target.name}`}
                  value={String(asked.bases?.[target.id] ?? "")}
                  none="proposed"
                  options={sessions.map((each) => ({ id: String(each.id), name: each.title }))}
                  onChange={(id) => set({ bases: placedIn(asked.bases, target.id, id ? Number(id) : null) })}
                />
              </li>
            ))}
          </ul>
        </details>
        {(asked.softened?.length ?? 0) > 0 && (
          <p className="rule-t pt-2">
            You gave way on: {asked.softened?.map((each) => each.replaceAll("-", " ")).join(", ")}.{" "}
            <button type="button" className="link min-h-[30px]" onClick={() => set({ softened: [] })}>
              Keep to all again
            </button>
          </p>
        )}
        <FormEnd
          word={word}
          busyWord="Saving …"
          busy={busy}
          error={error}
          fields={[...FIELDS, "person_id"]}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}

/** The same with one value in its place, or without it. */
function placedIn<T>(all: Record<string, T> | undefined, key: string, value: T | null): Record<string, T> {
  const rest = Object.fromEntries(Object.entries(all ?? {}).filter(([name]) => name !== key));
  return value === null ? rest : { ...rest, [key]: value };
}
