/** A box to tick, with its words. */
export function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex min-h-[30px] cursor-pointer items-center gap-2 max-[899px]:min-h-[44px]">
      <input
        type="checkbox"
        className="h-[18px] w-[18px] accent-[var(--ink)]"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}
