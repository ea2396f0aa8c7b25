import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { sessions as sessionsQuery, vocabulary } from "../../api/queries";
import { faultOf, SelectField, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import { Tick } from "../../ui/Tick";
import { shortDay } from "./plan";

export type Asked = Schemas["AskedIn"];
type FixedIn = Schemas["FixedIn"];
type Weekday = Schemas["DayIn"]["weekday"];

const WEEKDAYS: { id: Weekday; name: string }[] = [
  { id: "mon", name: "Monday" },
  { id: "tue", name: "Tuesday" },
  { id: "wed", name: "Wednesday" },
  { id: "thu", name: "Thursday" },
  { id: "fri", name: "Friday" },
  { id: "sat", name: "Saturday" },
  { id: "sun", name: "Sunday" },
];
const BESIDES = [
  { id: "sparring", name: "sparring" },
  { id: "test", name: "test day" },
  { id: "travel", name: "travel" },
];
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

interface Props {
  title: string;
  word: string;
  asked: Asked;
  /** Whom it is for, where that is still to be chosen. */
  who?: { value: string; options: { id: string; name: string }[]; onChange: (id: string) => void };
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
            onChange={who.onChange}
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

function Days({
  asked,
  fault,
  onChange,
}: {
  asked: Asked;
  fault: string | null;
  onChange: (days: Asked["days"]) => void;
}) {
  const put = (weekday: Weekday, change: Partial<Asked["days"][number]> | null) => {
    const rest = asked.days.filter((each) => each.weekday !== weekday);
    const now = asked.days.find((each) => each.weekday === weekday) ?? { weekday, at: "18:00", minutes: 75 };
    const order = (each: { weekday: Weekday }) => WEEKDAYS.findIndex(({ id }) => id === each.weekday);
    onChange((change ? [...rest, { ...now, ...change }] : rest).toSorted((one, two) => order(one) - order(two)));
  };
  return (
    <fieldset className="border border-[var(--rule)] px-3 pb-2">
      <legend className="label-text">Days</legend>
      {fault && <p role="alert">{fault}</p>}
      <ul className="grid gap-x-4 min-[560px]:grid-cols-2">
        {WEEKDAYS.map(({ id, name }) => {
          const day = asked.days.find((each) => each.weekday === id);
          return (
            <li key={id} className="flex min-h-[44px] items-center gap-2">
              <span className="w-[124px]">
                <Tick label={name} on={day !== undefined} onChange={(on) => put(id, on ? {} : null)} />
              </span>
              {day && (
                <>
                  <input
                    type="time"
                    aria-label={`Hour on ${name}`}
                    className="field w-[110px]"
                    required
                    value={(day.at ?? "18:00").slice(0, 5)}
                    onChange={(event) => put(id, { at: event.target.value })}
                  />
                  <input
                    type="number"
                    aria-label={`Minutes on ${name}`}
                    className="field w-[70px]"
                    min={15}
                    max={180}
                    required
                    value={day.minutes}
                    onChange={(event) => put(id, { minutes: Number(event.target.value) })}
                  />
                  <span className="quiet text-[13px]">min</span>
                </>
              )}
            </li>
          );
        })}
      </ul>
    </fieldset>
  );
}

const EVERY = [
  { id: "1", name: "every week" },
  { id: "2", name: "every second week" },
  { id: "4", name: "every fourth week" },
];

function Fixed({
  asked,
  targets,
  fault,
  onChange,
}: {
  asked: Asked;
  targets: { id: string; name: string }[];
  fault: string | null;
  onChange: (fixed: FixedIn[]) => void;
}) {
  const fixed = asked.fixed ?? [];
  const options = [...BESIDES, ...targets];
  const [purpose, setPurpose] = useState("sparring");
  const [when, setWhen] = useState("sat");
  const [every, setEvery] = useState("1");
  const [on, setOn] = useState("");
  const name = (id: string) => options.find((each) => each.id === id)?.name ?? id;
  const said = (each: FixedIn) =>
    each.on
      ? `${name(each.purpose)} on ${shortDay(each.on)}`
      : `${name(each.purpose)}, ${WEEKDAYS.find(({ id }) => id === each.weekday)?.name} ${EVERY.find(({ id }) => id === String(each.every_weeks))?.name ?? ""}`;
  const add = () => {
    const one: FixedIn =
      when === "date"
        ? { purpose, on, weekday: null, every_weeks: 1 }
        : { purpose, on: null, weekday: when as Weekday, every_weeks: Number(every) };
    if (!fixed.some((each) => JSON.stringify(each) === JSON.stringify(one))) onChange([...fixed, one]);
  };
  return (
    <fieldset className="border border-[var(--rule)] px-3 pb-3">
      <legend className="label-text">Fixed</legend>
      {fault && (
        <p role="alert">
          <span className="seal">Field</span> {fault}
        </p>
      )}
      <ul>
        {fixed.map((each, index) => (
          <li
            key={JSON.stringify(each)}
            className="flex min-h-[44px] items-center justify-between gap-3 border-b border-[var(--rule)]"
          >
            <span className="first-letter:uppercase">{said(each)}</span>
            <button
              type="button"
              className="act"
              aria-label={`Take out ${said(each)}`}
              onClick={() => onChange(fixed.filter((_, at) => at !== index))}
            >
              Take out
            </button>
          </li>
        ))}
        {fixed.length === 0 && (
          <li className="quiet py-1 text-[13px]">Nothing is fixed yet: sparring, travel, a test day.</li>
        )}
      </ul>
      <div className="grid items-end gap-2 pt-1 min-[560px]:grid-cols-[1fr_1fr_1fr_auto]">
        <SelectField label="What" value={purpose} options={options} onChange={setPurpose} />
        <SelectField
          label="When"
          value={when}
          options={[...WEEKDAYS, { id: "date", name: "on a date" }]}
          onChange={setWhen}
        />
        {when === "date" ? (
          <TextField label="Date" type="date" value={on} onChange={(event) => setOn(event.target.value)} />
        ) : (
          <SelectField label="How often" value={every} options={EVERY} onChange={setEvery} />
        )}
        <button type="button" className="act" disabled={when === "date" && !on} onClick={add}>
          Fix it
        </button>
      </div>
    </fieldset>
  );
}
