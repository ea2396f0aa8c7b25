interface Props {
  label: string;
  value: string;
  options: { id: string; name: string }[];
  /** What choosing nothing is called; left out where something must be chosen. */
  none?: string;
  onChange: (id: string) => void;
}

/** One of a closed list, under its label. */
export function Choice({ label, value, options, none, onChange }: Props) {
  return (
    <label className="label-text">
      <span className="block pb-1">{label}</span>
      <select
        className="h-[30px] max-w-[240px] cursor-pointer rounded-[2px] border border-[var(--ink)] bg-[var(--sheet)] px-1 text-[14px] font-normal text-[var(--ink)] max-[899px]:h-[44px]"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {none !== undefined && <option value="">{none}</option>}
        {options.map((option) => (
          <option key={option.id} value={option.id}>
            {option.name}
          </option>
        ))}
      </select>
    </label>
  );
}
