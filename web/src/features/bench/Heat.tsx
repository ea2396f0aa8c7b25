import { useId, useState } from "react";
import { readHeat } from "./heat";

interface Props {
  wbgt: number | null;
  onWbgt: (wbgt: number | null) => void;
}

/** The heat in the hall, for its caution. */
export function Heat({ wbgt, onWbgt }: Props) {
  const [text, setText] = useState(wbgt === null ? "" : String(wbgt));
  const id = useId();
  const wrong = readHeat(text) === undefined;
  return (
    <div className="no-print grid grid-cols-[1fr_72px] items-center gap-x-2 pt-3 text-[13px]">
      <label htmlFor={id} className="quiet">
        Heat in the hall today, °C WBGT
      </label>
      <input
        id={id}
        className="field text-right"
        inputMode="decimal"
        value={text}
        placeholder="none"
        aria-invalid={wrong}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        onChange={(event) => {
          setText(event.target.value);
          const read = readHeat(event.target.value);
          if (read !== undefined) onWbgt(read);
        }}
      />
      {wrong && (
        <p id={`${id}-wrong`} role="alert" className="col-span-2 pt-1">
          <span className="seal">Word</span> A number from -20 to 60, such as 26.5, or nothing.
        </p>
      )}
    </div>
  );
}
