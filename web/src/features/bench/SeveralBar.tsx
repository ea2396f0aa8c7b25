import type { Schemas } from "../../api/client";

interface Props {
  count: number;
  tempos: Schemas["TempoOut"][];
  purposes: Schemas["Named"][];
  onDouble: () => void;
  onRemove: () => void;
  onJoin: () => void;
  onPurpose: (purpose: string | null) => void;
  onEffort: (tempo: Schemas["TempoOut"]["id"]) => void;
  onDone: () => void;
}

/** What can be done to all the rows that are picked. */
export function SeveralBar(props: Props) {
  const { count, tempos, purposes } = props;
  const none = count === 0;
  const select = "h-[34px] rounded-[2px] border border-[var(--ink)] bg-[var(--sheet)] px-1 max-[899px]:h-[44px]";
  return (
    <div
      role="toolbar"
      aria-label="Change several rows"
      className="no-print flex flex-wrap items-center gap-2 border border-[var(--ink)] bg-[var(--sheet)] px-3 py-2 text-[13px]"
    >
      <b role="status" className="pr-2">
        {none ? "Pick rows" : `${count} ${count === 1 ? "row" : "rows"} picked`}
      </b>
      <button type="button" className="act" disabled={none} onClick={props.onDouble}>
        Double
      </button>
      <button type="button" className="act" disabled={none} onClick={props.onRemove}>
        Remove
      </button>
      <button type="button" className="act" disabled={count < 2} onClick={props.onJoin}>
        Make one part
      </button>
      <select
        aria-label="Purpose of all rows picked"
        className={select}
        value="-"
        disabled={none}
        onChange={(event) => props.onPurpose(event.target.value || null)}
      >
        <option value="-">purpose of all …</option>
        <option value="">nothing said</option>
        {purposes.map((purpose) => (
          <option key={purpose.id} value={purpose.id}>
            {purpose.name}
          </option>
        ))}
      </select>
      <select
        aria-label="Effort of all rows picked"
        className={select}
        value=""
        disabled={none}
        onChange={(event) => props.onEffort(event.target.value as Schemas["TempoOut"]["id"])}
      >
        <option value="">effort of all work …</option>
        {tempos
          .filter((tempo) => tempo.kind === "work")
          .map((tempo) => (
            <option key={tempo.id} value={tempo.id}>
              {tempo.word}
            </option>
          ))}
      </select>
      <button type="button" className="act main ml-auto" onClick={props.onDone}>
        Done
      </button>
    </div>
  );
}
