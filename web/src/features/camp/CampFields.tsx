import { useState } from "react";
import type { Schemas } from "../../api/client";
import { SelectField, TextField } from "../../ui/Field";
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
/** On which days there is time, from when and for how long. */
export function Days({
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

/** What stands on its day whatever else is planned. */
export function Fixed({
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
