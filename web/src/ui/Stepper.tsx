import { useId, useState } from "react";
import { actionOf, STEPPER } from "./keymap";

type By = 1 | -1;

interface Props {
  label: string;
  value: number;
  min: number;
  max: number;
  show: (value: number) => string;
  read: (text: string) => number | null;
  step: (value: number) => number;
  onChange: (value: number) => void;
  /** Hears what a step would make of the value as soon as the hand is near: it can be worked out before it is made. */
  onAhead?: (value: number) => void;
}

/** Minus, value, plus. The value can be typed; + and − and the arrow keys change it. */
export function Stepper({ label, value, min, max, show, read, step, onChange, onAhead }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed !== null && !valid(typed);

  function valid(text: string): boolean {
    const number = read(text);
    return number !== null && number >= min && number <= max;
  }
  function tellStep(by: By, hears: ((value: number) => void) | undefined) {
    const size = step(by < 0 ? value - 1 : value);
    const next = Math.min(max, Math.max(min, Math.round((value + by * size) / size) * size || min));
    if (next !== value) hears?.(next);
  }
  function change(by: By) {
    setTyped(null);
    tellStep(by, onChange);
  }
  const near = (by: By) => tellStep(by, onAhead);
  function settle(text: string) {
    const number = read(text);
    if (valid(text) && number !== null) {
      setTyped(null);
      if (number !== value) onChange(number);
    }
  }
  const look =
    "w-[28px] max-[899px]:w-[44px] cursor-pointer hover:bg-[#E9E3D5] active:bg-[var(--ink)] active:text-[var(--sheet)]";
  const end = (by: By, word: string, sign: string) => (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`${label}: ${word}`}
      className={look}
      onPointerEnter={() => near(by)}
      onClick={() => change(by)}
    >
      {sign}
    </button>
  );
  return (
    <div>
      <label htmlFor={id} className="label-text block pb-1">
        {label}
      </label>
      <div className="inline-flex h-[30px] items-stretch rounded-[2px] border border-[var(--ink)] bg-[var(--sheet)] max-[899px]:h-[44px]">
        {end(-1, "less", "−")}
        <input
          id={id}
          role="spinbutton"
          aria-valuenow={value}
          aria-valuemin={min}
          aria-valuemax={max}
          aria-valuetext={show(value)}
          aria-invalid={wrong}
          inputMode="numeric"
          autoComplete="off"
          className={`w-[48px] border-x border-[var(--rule)] bg-transparent text-center font-semibold ${
            wrong ? "border-b-[3px] border-b-[var(--vermilion)]" : ""
          }`}
          value={typed ?? show(value)}
          onChange={(event) => {
            setTyped(event.target.value);
            settle(event.target.value);
          }}
          onFocus={(event) => {
            event.target.select();
            near(1);
            near(-1);
          }}
          onBlur={() => setTyped(null)}
          onKeyDown={(event) => {
            const action = actionOf(STEPPER, event);
            if (!action) return;
            event.preventDefault();
            event.stopPropagation();
            change(action === "more" ? 1 : -1);
          }}
        />
        {end(1, "more", "+")}
      </div>
      {wrong && (
        <p className="text-[12px] text-[var(--vermilion)]" role="alert">
          from {show(min)} to {show(max)}
        </p>
      )}
    </div>
  );
}
