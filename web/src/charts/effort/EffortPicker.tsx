import { RPE_WORDS } from "../../ui/rpe";
import { tone } from "../score/ink";

interface Props {
  value: number | null;
  onChange: (value: number) => void;
}

/** Eleven columns that are themselves a score; the word under each; the chosen one inverted. */
export function EffortPicker({ value, onChange }: Props) {
  return (
    <fieldset>
      <legend className="sr-only">How hard was it, 0 to 10</legend>
      <div className="grid grid-cols-[repeat(11,minmax(0,1fr))] items-start gap-[3px] min-[700px]:gap-[6px]">
        {RPE_WORDS.map((word, effort) => (
          <label key={word} className="group flex cursor-pointer flex-col">
            <input
              type="radio"
              name="rpe"
              className="peer sr-only"
              checked={value === effort}
              onChange={() => onChange(effort)}
            />
            <span className="flex h-[110px] items-end border-b border-[var(--ink)]">
              <span
                className="block w-full border-t-[1.6px] border-[var(--ink)]"
                style={{ height: `${effort * 10}%`, background: effort ? tone(0.2 + effort * 0.115) : "none" }}
              />
            </span>
            <span
              className={`flex min-h-[64px] flex-col items-center pt-1 text-center text-[12px] leading-[14px] peer-focus-visible:outline-2 ${
                value === effort ? "bg-[var(--ink)] font-semibold text-[var(--sheet)]" : ""
              }`}
            >
              <b className="text-[15px] leading-[20px]">{effort}</b>
              <span className="hidden min-[700px]:block">{word}</span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
