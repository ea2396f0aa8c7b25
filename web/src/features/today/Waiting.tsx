import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { day, today } from "../../domain/time";
import { RPE_WORDS } from "../../ui/rpe";

type Waits = Schemas["Waiting"];
const keyOf = (row: Waits) => `${row.planned_id} ${row.person.id}`;

/** What is over and nobody has rated: one touch, or one figure, for each. What was told stays to be taken back. */
export function Waiting({ waiting }: { waiting: Waits[] }) {
  const [told, setTold] = useState<Waits[]>([]);
  const list = useRef<HTMLUListElement>(null);
  const known = new Set(told.map(keyOf));
  const rows = [...told, ...waiting.filter((row) => !known.has(keyOf(row)))];
  rows.sort((a, b) => `${a.on} ${a.at} ${a.person.name}`.localeCompare(`${b.on} ${b.at} ${b.person.name}`));
  if (!rows.length) return null;
  /** On to the next that waits, so that a class is rated down the list. */
  const next = (from: Element) => {
    const open = [...(list.current?.querySelectorAll("fieldset") ?? [])];
    const after = open.find(
      (each) => !from.contains(each) && from.compareDocumentPosition(each) & Node.DOCUMENT_POSITION_FOLLOWING,
    );
    after?.querySelector<HTMLInputElement>("input")?.focus();
  };
  return (
    <section aria-label="Waits for a log" className="ink-t mt-4 pt-3">
      <h2>Waits for a log</h2>
      <p className="quiet">
        How hard was it, 0 to 10? Done whole as planned; what went otherwise is logged on the floor.
      </p>
      <ul ref={list}>
        {rows.map((row) => (
          <Row key={keyOf(row)} row={row} onTold={() => setTold((now) => [...now, row])} onNext={next} />
        ))}
      </ul>
    </section>
  );
}

interface RowProps {
  row: Waits;
  onTold: () => void;
  onNext: (from: Element) => void;
}

function Row({ row, onTold, onNext }: RowProps) {
  const client = useQueryClient();
  const field = useRef<HTMLLIElement>(null);
  const path = { planned_id: row.planned_id, person_id: row.person.id };
  const refresh = () => Promise.all([["today"], ["log"]].map((queryKey) => askAnew(client, { queryKey })));
  const rate = useMutation({
    mutationFn: (rpe: number) =>
      need(api.PUT("/api/planned/{planned_id}/people/{person_id}/rpe", { params: { path }, body: { rpe } })),
    onMutate: () => {
      if (field.current) onNext(field.current);
    },
    onSuccess: () => {
      onTold();
      return refresh();
    },
  });
  const away = useMutation({
    mutationFn: (gone: boolean) =>
      need(api.PUT("/api/planned/{planned_id}/people/{person_id}/away", { params: { path, query: { away: gone } } })),
    onSuccess: () => {
      onTold();
      return refresh();
    },
  });
  const undo = useMutation({
    mutationFn: () => need(api.DELETE("/api/planned/{planned_id}/people/{person_id}/rpe", { params: { path } })),
    onSuccess: () => {
      rate.reset();
      return refresh();
    },
  });
  const busy = rate.isPending || away.isPending || undo.isPending;
  const told = rate.data ? (
    <span>
      <span className="tick">✓</span> <b>{rate.data.rpe}</b> {RPE_WORDS[rate.data.rpe]}, expected{" "}
      {Math.round(rate.data.planned_rpe)}
    </span>
  ) : (
    away.isSuccess && away.variables && "Not there."
  );
  const error = rate.error ?? away.error ?? undo.error;
  const when = row.on === today() ? row.at.slice(0, 5) : `${day(row.on)}, ${row.at.slice(0, 5)}`;
  return (
    <li ref={field} className="rule-t flex flex-wrap items-center gap-x-5 gap-y-2 py-2">
      <span className="min-w-[180px] flex-1">
        <b>{row.person.name}</b>
        <span className="quiet block text-[13px]">
          {row.title}, {when}
        </span>
      </span>
      {told ? (
        <span className="flex flex-wrap items-center gap-3" role="status">
          {told}
          <button
            type="button"
            className="act"
            disabled={busy}
            aria-label={`Undo: ${row.person.name}`}
            onClick={() => (rate.data ? undo.mutate() : away.mutate(false))}
          >
            Undo
          </button>
        </span>
      ) : (
        <>
          <Picker row={row} busy={busy} value={rate.isPending ? rate.variables : null} onPick={rate.mutate} />
          <button
            type="button"
            className="link text-[13px]"
            disabled={busy}
            aria-label={`Not there: ${row.person.name}`}
            onClick={() => away.mutate(true)}
          >
            Not there
          </button>
        </>
      )}
      {error && (
        <p role="alert" className="basis-full">
          {error.message}
        </p>
      )}
    </li>
  );
}

interface PickerProps {
  row: Waits;
  value: number | null;
  busy: boolean;
  onPick: (rpe: number) => void;
}

/** Eleven figures in a row; by keys a figure, and T for ten. */
function Picker({ row, value, busy, onPick }: PickerProps) {
  return (
    <fieldset
      disabled={busy}
      className="grid grid-cols-[repeat(11,minmax(0,1fr))] max-[500px]:w-full"
      onKeyDown={({ key, ctrlKey, metaKey }) => {
        if (ctrlKey || metaKey) return;
        if (/^\d$/.test(key)) onPick(Number(key));
        else if (key === "t") onPick(10);
      }}
    >
      <legend className="sr-only">How hard was it for {row.person.name}, 0 to 10</legend>
      {RPE_WORDS.map((word, effort) => (
        <label
          key={word}
          title={word}
          className="flex h-[44px] min-w-[28px] cursor-pointer items-center justify-center border border-[var(--rule-2)] font-semibold hover:bg-[var(--ink)] hover:text-[var(--sheet)] has-checked:bg-[var(--ink)] has-checked:text-[var(--sheet)] has-focus-visible:outline-2 min-[501px]:w-[38px] [&:not(:first-of-type)]:border-l-0"
        >
          <input
            type="radio"
            className="sr-only"
            name={`rpe ${keyOf(row)}`}
            aria-label={`${effort} ${word}`}
            checked={value === effort}
            onChange={() => {}}
            onClick={() => onPick(effort)}
          />
          {effort}
        </label>
      ))}
    </fieldset>
  );
}
