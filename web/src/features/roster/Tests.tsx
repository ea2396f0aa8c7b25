import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { rosterWords } from "../../api/queries";
import { COURSES } from "../../domain/clock/fieldTest";
import { day, today } from "../../domain/time";
import { capital } from "../../ui/capital";
import { faultOf, SelectField, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import { keepTest, type Page, type usePageAct } from "./useRoster";

type Act = ReturnType<typeof usePageAct>;
type Test = Schemas["FieldTestOut"];

/** Every test, the newest first, with whether a change is real. */
export function Tests({ page, act }: { page: Page; act: Act }) {
  const kinds = useQuery(rosterWords).data?.tests ?? [];
  const [gone, setGone] = useState<Test | null>(null);
  const path = { person_id: page.person.id };
  const remove = (test: Test) =>
    act.mutate(
      () =>
        need(
          api.DELETE("/api/people/{person_id}/tests/{test_id}", { params: { path: { ...path, test_id: test.id } } }),
        ),
      { onSuccess: () => setGone(test) },
    );
  const bringBack = ({ kind, on, value, counts, where, counted_by }: Test) => {
    const body = { kind, on, value: counts ? null : value, counts, where, counted_by };
    act.mutate(() => keepTest(page.person.id, body), { onSuccess: () => setGone(null) });
  };
  return (
    <section aria-label="Tests">
      <h2>Tests</h2>
      {gone && (
        <p role="status" className="rule-t flex flex-wrap items-center gap-3 py-2">
          The test of {day(gone.on)} is taken out.
          <button type="button" className="act" disabled={act.isPending} onClick={() => bringBack(gone)}>
            Undo
          </button>
        </p>
      )}
      {page.tests.length === 0 && (
        <p className="rule-t quiet py-[5px]">None yet. What is not tested stands at a default, and says so.</p>
      )}
      <ul>
        {page.tests.map((test) => {
          const kind = kinds.find((each) => each.id === test.kind);
          const unit = test.kind === "strikes" ? "strikes in 10 s" : (kind?.unit ?? "");
          return (
            <li key={test.id} className="rule-t flex flex-wrap items-start justify-between gap-x-3 py-[5px]">
              <span className="min-w-[180px] flex-1">
                {capital(kind?.name ?? test.kind)}:{" "}
                <b>
                  {test.value} {unit}
                </b>
                <span className="quiet block text-[12px] leading-[16px]">
                  {[day(test.on), test.where, test.counted_by].filter(Boolean).join(", ")}
                </span>
                {test.change && (
                  <span className="block text-[13px] leading-[17px]">
                    {test.change.real ? <b>Real:</b> : "Within error:"} {signed(test.change.by)}, and two such tests
                    differ by up to {plain(test.change.within)} with nothing changed ({test.change.source}).
                  </span>
                )}
              </span>
              <button
                type="button"
                className="link min-h-[30px] text-[13px]"
                aria-label={`Take out the test of ${day(test.on)}`}
                disabled={act.isPending}
                onClick={() => remove(test)}
              >
                Take out
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const plain = (value: number): string => String(Math.round(value * 10) / 10);
const signed = (value: number): string => `${value > 0 ? "+" : value < 0 ? "−" : "±"}${plain(Math.abs(value))}`;

const SPLITS = ["10 s", "30 s", "0:00 to 0:30", "to 1:00", "to 1:30", "to 2:00", "to 2:30", "to 3:00"];
const FIELDS = ["kind", "on", "value", "counts", "where", "counted_by"];

/** A test of a day, typed in. */
export function NewTest({ page, act, onClose }: { page: Page; act: Act; onClose: () => void }) {
  const kinds = useQuery(rosterWords).data?.tests ?? [];
  const [kind, setKind] = useState<Test["kind"]>("strikes");
  const [value, setValue] = useState("");
  const [counts, setCounts] = useState(() => SPLITS.map(() => ""));
  const [on, setOn] = useState(today());
  const [where, setWhere] = useState("");
  const [by, setBy] = useState("");
  const known = kinds.find((each) => each.id === kind);
  const strikes = kind === "strikes";

  function submit(event: FormEvent) {
    event.preventDefault();
    const body: Schemas["FieldTestIn"] = {
      kind,
      on,
      value: strikes ? null : Number(value.replace(",", ".")),
      counts: strikes ? counts.map(Number) : null,
      where,
      counted_by: by,
    };
    act.mutate(() => keepTest(page.person.id, body), { onSuccess: onClose });
  }
  const fault = (field: string) => faultOf(act.error, field);
  return (
    <Sheet label="New test" className="w-[min(560px,calc(100vw-32px))]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <h2>New test</h2>
        <SelectField
          label="Test"
          hint={known?.how}
          fault={fault("kind")}
          value={kind}
          options={kinds.map((each) => ({ id: each.id, name: each.name }))}
          onChange={(id) => setKind(id as Test["kind"])}
        />
        {COURSES[kind] && (
          <p className="flex flex-wrap items-center gap-3">
            <Link className="act" to={`/roster/${page.person.id}/test/${kind}`}>
              Run it on the floor
            </Link>
            <span className="quiet">or type what was counted:</span>
          </p>
        )}
        {strikes ? (
          <fieldset>
            <legend className="label-text pb-1">Strikes counted</legend>
            <div className="grid grid-cols-2 gap-2 min-[480px]:grid-cols-4">
              {SPLITS.map((name, index) => (
                <label key={name} className="text-[12px]">
                  {name}
                  <input
                    className="field"
                    inputMode="numeric"
                    pattern="[0-9]{1,3}"
                    title="a whole number"
                    required
                    aria-invalid={fault("counts") ? true : undefined}
                    value={counts[index]}
                    onChange={(event) => setCounts(counts.with(index, event.target.value))}
                  />
                </label>
              ))}
            </div>
            {fault("counts") && (
              <p role="alert" className="pt-1 text-[13px]">
                <span className="seal">Field</span> {fault("counts")}
              </p>
            )}
          </fieldset>
        ) : (
          <TextField
            label={`${capital(known?.name ?? "")}, ${known?.unit ?? ""}`}
            inputMode="decimal"
            required
            value={value}
            fault={fault("value")}
            onChange={(event) => setValue(event.target.value)}
          />
        )}
        <div className="grid items-start gap-3 min-[480px]:grid-cols-3">
          <TextField
            label="On"
            type="date"
            required
            max={today()}
            value={on}
            fault={fault("on")}
            onChange={(event) => setOn(event.target.value)}
          />
          <TextField
            label="Bag or track"
            maxLength={60}
            value={where}
            fault={fault("where")}
            onChange={(event) => setWhere(event.target.value)}
          />
          <TextField
            label="Who counted"
            maxLength={60}
            value={by}
            fault={fault("counted_by")}
            onChange={(event) => setBy(event.target.value)}
          />
        </div>
        <FormEnd
          word="Save"
          busyWord="Saving …"
          busy={act.isPending}
          error={act.error}
          fields={FIELDS}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}
