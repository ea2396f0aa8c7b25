import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, need, type Schemas } from "../../api/client";
import { me, rosterWords } from "../../api/queries";
import { once } from "../../domain/once";
import { day } from "../../domain/time";
import { capital } from "../../ui/capital";
import { faultOf, SelectField, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import type { Page, usePageAct } from "./useRoster";

type Limit = Schemas["LimitOut"];
type Act = ReturnType<typeof usePageAct>;

/** What somebody must not do, with who says so and until when. */
export function Limits({ page, act }: { page: Page; act: Act }) {
  const [adding, setAdding] = useState(false);
  const holding = page.limits.filter((limit) => limit.holds);
  const over = page.limits.filter((limit) => !limit.holds);
  return (
    <section aria-label="Limits">
      <h2>Limits</h2>
      {holding.length === 0 && <p className="rule-t quiet py-[5px]">None. Everything may be trained.</p>}
      <ul>
        {holding.map((limit) => (
          <Row key={limit.id} limit={limit} page={page} act={act} />
        ))}
      </ul>
      {over.length > 0 && (
        <details className="rule-t py-[5px] text-[13px]">
          <summary className="cursor-pointer">{over.length} over or lifted</summary>
          <ul>
            {over.map((limit) => (
              <Row key={limit.id} limit={limit} page={page} act={act} />
            ))}
          </ul>
        </details>
      )}
      <p className="rule-t pt-2">
        <button type="button" className="act" onClick={() => setAdding(true)}>
          Add a limit
        </button>
      </p>
      {adding && <AddLimit page={page} act={act} onClose={() => setAdding(false)} />}
    </section>
  );
}

function Row({ limit, page, act }: { limit: Limit; page: Page; act: Act }) {
  const until = limit.lifted_on
    ? `lifted ${day(limit.lifted_on)}`
    : limit.until
      ? `until ${day(limit.until)}`
      : "until lifted";
  const path = { person_id: page.person.id, limit_id: limit.id };
  const lift = (lifted: boolean) =>
    act.mutate(() =>
      need(api.PUT("/api/people/{person_id}/limits/{limit_id}/lifted", { params: { path, query: { lifted } } })),
    );
  const again = !limit.holds && limit.lifted_on !== null;
  return (
    <li className="rule-t flex flex-wrap items-start gap-x-3 py-[5px]">
      {limit.holds && <span className="seal mt-[2px]">Limit</span>}
      <span className="min-w-[160px] flex-1">
        {capital(limit.words)}, {until}
        <span className="quiet block text-[12px] leading-[16px]">
          {limit.set_by}, {day(limit.set_on)}
        </span>
      </span>
      {(limit.holds || again) && (
        <button
          type="button"
          className="link min-h-[30px] text-[13px]"
          aria-label={`${limit.holds ? "Lift" : "Hold again"}: ${limit.words}`}
          disabled={act.isPending}
          onClick={() => lift(limit.holds)}
        >
          {limit.holds ? "Lift" : "Hold again"}
        </button>
      )}
    </li>
  );
}

const FIELDS = ["kind", "limb", "most", "period", "until", "set_by"];

function AddLimit({ page, act, onClose }: { page: Page; act: Act; onClose: () => void }) {
  const words = useQuery(rosterWords).data;
  const coach = useQuery(me).data?.coach ?? "";
  const [kind, setKind] = useState("no-kicks");
  const [limb, setLimb] = useState("right hand");
  const [most, setMost] = useState("");
  const [period, setPeriod] = useState<"session" | "week">("session");
  const [until, setUntil] = useState("");
  const [setBy, setSetBy] = useState(coach);
  const known = words?.limits.find((each) => each.id === kind);
  const fault = (field: string) => faultOf(act.error, field);

  function submit(event: FormEvent) {
    event.preventDefault();
    const body: Schemas["LimitIn"] = {
      kind: kind as Schemas["LimitIn"]["kind"],
      limb: known?.limb ? (limb as Limit["limb"]) : null,
      most: known?.most ? Number(most) : null,
      period: known?.period ? period : null,
      until: until || null,
      set_by: setBy,
    };
    const params = { path: { person_id: page.person.id } };
    act.mutate(
      () =>
        once(["limit", page.person.id, body], (headers) =>
          need(api.POST("/api/people/{person_id}/limits", { params, body, headers })),
        ),
      { onSuccess: onClose },
    );
  }
  return (
    <Sheet label="Add a limit" className="w-[min(480px,calc(100vw-32px))]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-4">
        <div>
          <h2>Add a limit</h2>
          <p className="quiet text-[13px]">
            What {page.person.name} must not do. Why is not asked: what the physician allows is what counts.
          </p>
        </div>
        <SelectField
          label="Limit"
          hint={known?.changes}
          fault={fault("kind")}
          value={kind}
          options={(words?.limits ?? []).map((each) => ({ id: each.id, name: spoken(each.word) }))}
          onChange={setKind}
        />
        {known?.limb && (
          <SelectField
            label="Limb"
            fault={fault("limb")}
            value={limb}
            options={(words?.limbs ?? []).map((each) => ({ id: each, name: each }))}
            onChange={setLimb}
          />
        )}
        {known?.most && (
          <TextField
            label={known.id === "heart-rate" ? "Beats a minute, at most" : "Strikes, at most"}
            inputMode="numeric"
            pattern="[0-9]+"
            title="a whole number"
            required
            fault={fault("most")}
            value={most}
            onChange={(event) => setMost(event.target.value)}
          />
        )}
        {known?.period && (
          <SelectField
            label="In a"
            fault={fault("period")}
            value={period}
            options={[
              { id: "session", name: "session" },
              { id: "week", name: "week (seven days)" },
            ]}
            onChange={(id) => setPeriod(id as "session" | "week")}
          />
        )}
        <TextField
          label="Last day it holds"
          hint="Left open, it holds until it is lifted."
          type="date"
          fault={fault("until")}
          value={until}
          onChange={(event) => setUntil(event.target.value)}
        />
        <TextField
          label="Who says so"
          required
          maxLength={120}
          fault={fault("set_by")}
          value={setBy}
          onChange={(event) => setSetBy(event.target.value)}
        />
        <FormEnd
          word="Add"
          busyWord="Adding …"
          busy={act.isPending}
          error={act.error}
          fields={FIELDS}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}

/** A kind of limit as it is chosen, before its limb and number are said. */
const spoken = (word: string): string =>
  word.replace("{limb}", "one limb").replace("{most}", "so many").replace("a {period}", "");
