import { type FormEvent, useState } from "react";
import { api, need } from "../../api/client";
import { day, today } from "../../domain/time";
import { faultOf, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import { Tick } from "../../ui/Tick";
import type { Page, usePageAct } from "./useRoster";

type Act = ReturnType<typeof usePageAct>;
/** Days before a clearance ends from which it is told. */

/** What the screening came to, and a physician's clearance with its end. */
export function Screening({ page, act }: { page: Page; act: Act }) {
  const [open, setOpen] = useState<"form" | "clearance" | null>(null);
  const { screening } = page;
  const clear = screening?.outcome === "clear";
  return (
    <section aria-label="Screening">
      <h2>Screening</h2>
      {screening === null ? (
        <p className="rule-t py-[5px]">
          <span className="seal">Form</span> None on record. Ask the three questions before vigorous work.
        </p>
      ) : (
        <ul>
          <li className="rule-t flex gap-3 py-[5px]">
            {clear ? <span className="tick">✓ Clear</span> : <span className="seal mt-[2px]">Screen</span>}
            <span>
              {screening.says}{" "}
              <span className="quiet block text-[12px] leading-[16px]">Asked on {day(screening.on)}</span>
            </span>
          </li>
          {screening.clearance_ends && <Clearance page={page} />}
        </ul>
      )}
      <p className="rule-t flex flex-wrap gap-2 pt-2">
        <button type="button" className="act" onClick={() => setOpen("form")}>
          {screening ? "Ask again" : "Ask the questions"}
        </button>
        {screening && (
          <button type="button" className="act" onClick={() => setOpen("clearance")}>
            Enter a clearance
          </button>
        )}
      </p>
      {open === "form" && <Form page={page} act={act} onClose={() => setOpen(null)} />}
      {open === "clearance" && <EnterClearance page={page} act={act} onClose={() => setOpen(null)} />}
    </section>
  );
}

function Clearance({ page: { screening } }: { page: Page }) {
  const left = screening?.clearance_days_left ?? 0;
  const ends = day(screening?.clearance_ends ?? "");
  const words = left < 0 ? `ended ${ends}` : `to ${ends}`;
  return (
    <li className="rule-t flex gap-3 py-[5px]">
      {left < 0 ? (
        <span className="seal mt-[2px]">Over</span>
      ) : screening?.clearance_ends_soon ? (
        <span className="seal light mt-[2px]">Ends</span>
      ) : (
        <span className="tick">✓ Clear</span>
      )}
      <span>
        {screening?.cleared_by ? `${screening.cleared_by}, ` : "Physician, "}
        {words}
        {screening?.clearance_ends_soon && `: ${left} ${left === 1 ? "day" : "days"} left, ask for the next`}
      </span>
    </li>
  );
}

function Form({ page, act, onClose }: { page: Page; act: Act; onClose: () => void }) {
  const [active, setActive] = useState(page.screening?.regularly_active ?? false);
  const [disease, setDisease] = useState(page.screening?.known_disease ?? false);
  const [symptoms, setSymptoms] = useState(false);
  const [on, setOn] = useState(today());
  function submit(event: FormEvent) {
    event.preventDefault();
    const body = { on, regularly_active: active, known_disease: disease, symptoms };
    const params = { path: { person_id: page.person.id } };
    act.mutate(() => need(api.PUT("/api/people/{person_id}/screening", { params, body })), { onSuccess: onClose });
  }
  return (
    <Sheet label="Screening" className="w-[min(560px,calc(100vw-32px))]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <div>
          <h2>Screening</h2>
          <p className="quiet text-[13px]">
            Three questions, by the logic of the 2015 pre-participation screening. Only the answers are kept, for your
            club's coaches. It is no diagnosis: where it says so, a physician decides.
          </p>
        </div>
        <Tick
          label="Regularly active: at least moderate, 30 min on 3 days a week, for 3 months"
          on={active}
          onChange={setActive}
        />
        <Tick label="A known disease of heart, vessels, metabolism or kidneys" on={disease} onChange={setDisease} />
        <Tick
          label="Any sign of one: chest pain, breathless at rest, dizzy or fainting, a stumbling heartbeat, swollen ankles"
          on={symptoms}
          onChange={setSymptoms}
        />
        <TextField
          label="Asked on"
          type="date"
          required
          max={today()}
          value={on}
          fault={faultOf(act.error, "on")}
          onChange={(event) => setOn(event.target.value)}
        />
        <FormEnd
          word="Save"
          busyWord="Saving …"
          busy={act.isPending}
          error={act.error}
          fields={["on"]}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}

function EnterClearance({ page, act, onClose }: { page: Page; act: Act; onClose: () => void }) {
  const [by, setBy] = useState(page.screening?.cleared_by ?? "");
  const [on, setOn] = useState(today());
  const [until, setUntil] = useState("");
  function submit(event: FormEvent) {
    event.preventDefault();
    const body = { on, by, until: until || null };
    const params = { path: { person_id: page.person.id } };
    act.mutate(() => need(api.PUT("/api/people/{person_id}/clearance", { params, body })), { onSuccess: onClose });
  }
  return (
    <Sheet label="A physician's clearance" className="w-[min(480px,calc(100vw-32px))]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <h2>A physician's clearance</h2>
        <TextField
          label="Physician"
          required
          maxLength={120}
          value={by}
          fault={faultOf(act.error, "by")}
          onChange={(event) => setBy(event.target.value)}
        />
        <TextField
          label="Given on"
          type="date"
          required
          max={today()}
          value={on}
          fault={faultOf(act.error, "on")}
          onChange={(event) => setOn(event.target.value)}
        />
        <TextField
          label="Last day it holds"
          hint="Left open, a year."
          type="date"
          value={until}
          fault={faultOf(act.error, "until")}
          onChange={(event) => setUntil(event.target.value)}
        />
        <FormEnd
          word="Save"
          busyWord="Saving …"
          busy={act.isPending}
          error={act.error}
          fields={["by", "on", "until"]}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}
