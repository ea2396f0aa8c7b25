import { type FormEvent, useState } from "react";
import { api, need } from "../../api/client";
import { day, today } from "../../domain/time";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";
import type { Page, usePageAct } from "./useRoster";

type Act = ReturnType<typeof usePageAct>;

/** A knock to the head that no physician has cleared: nothing but rest, and no way past it. */
export function Knocks({ page, act }: { page: Page; act: Act }) {
  const open = page.knocks.find((knock) => knock.cleared_on === null);
  const [by, setBy] = useState("");
  const [on, setOn] = useState(today());
  if (!open) return null;
  const path = { person_id: page.person.id, knock_id: open.id };
  function submit(event: FormEvent) {
    event.preventDefault();
    act.mutate(() =>
      need(api.PUT("/api/people/{person_id}/knocks/{knock_id}/clearance", { params: { path }, body: { on, by } })),
    );
  }
  const others = faultBeside(act.error, ["on", "by"]);
  return (
    <section aria-label="Knock to the head" className="mb-4 border-2 border-[var(--vermilion)] bg-[var(--sheet)] p-4">
      <p>
        <span className="seal">Head</span>{" "}
        <b>
          A knock to the head on {day(open.on)}
          {open.noted_by && `, noted by ${open.noted_by}`}.
        </b>{" "}
        Nothing but rest until a licensed physician clears it. Headache, vomiting, confusion or sleepiness: get help at
        once.
      </p>
      <form onSubmit={submit} className="flex flex-wrap items-start gap-3 pt-3">
        <TextField
          label="Cleared by (physician)"
          required
          maxLength={120}
          value={by}
          fault={faultOf(act.error, "by")}
          onChange={(event) => setBy(event.target.value)}
        />
        <TextField
          label="On"
          type="date"
          required
          max={today()}
          value={on}
          fault={faultOf(act.error, "on")}
          onChange={(event) => setOn(event.target.value)}
        />
        <button type="submit" className="act mt-[21px]" disabled={act.isPending}>
          Enter the clearance
        </button>
      </form>
      {others && <p role="alert">{others}</p>}
    </section>
  );
}

/** A knock to the head is recorded: asked once more, as only a physician's clearance ends it. */
export function NewKnock({ page, act, onClose }: { page: Page; act: Act; onClose: () => void }) {
  const [on, setOn] = useState(today());
  function submit(event: FormEvent) {
    event.preventDefault();
    const params = { path: { person_id: page.person.id, on } };
    const noted = async () => {
      await need(api.PUT("/api/people/{person_id}/knocks/on/{on}", { params }));
      return need(api.GET("/api/people/{person_id}", { params: { path: { person_id: page.person.id } } }));
    };
    act.mutate(noted, {
      onSuccess: onClose,
    });
  }
  return (
    <Sheet label="A knock to the head" className="w-[min(480px,calc(100vw-32px))]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <h2>A knock to the head</h2>
        <p>
          {page.person.name} then does nothing but rest until a licensed physician clears it. There is no way past it,
          and it stays on record.
        </p>
        <TextField
          label="On"
          type="date"
          required
          max={today()}
          value={on}
          fault={faultOf(act.error, "on")}
          onChange={(event) => setOn(event.target.value)}
        />
        <FormEnd
          word="Record it"
          busyWord="Recording …"
          busy={act.isPending}
          error={act.error}
          fields={["on"]}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}
