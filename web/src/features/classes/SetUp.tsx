import { clock, readClock } from "../../domain/time";
import { Stepper } from "../../ui/Stepper";
import { type Answer, type Asked, type Kept, ofSize } from "./plan";

interface Props {
  kept: Kept;
  answer: Answer;
  onChange: (asked: Asked) => void;
}

/** What a class is made of, in numbers: each change is solved at once. */
export function SetUp({ kept, answer, onChange }: Props) {
  const { asked } = kept;
  const set = (change: Partial<Asked>) => onChange({ ...asked, ...change, put: [] });
  return (
    <section aria-label="Set-up" className="pt-3 print:hidden">
      <h3>Set-up</h3>
      <div className="flex flex-wrap gap-x-4 gap-y-2 pt-1">
        <Count
          label="People"
          value={asked.people.length}
          min={1}
          max={60}
          onChange={(to) => onChange(ofSize({ ...asked, put: [] }, to))}
        />
        <Count label="Bags" value={asked.bags ?? 0} min={0} max={30} onChange={(bags) => set({ bags })} />
        <Count
          label="Pad pairs"
          value={asked.pad_pairs ?? 0}
          min={0}
          max={30}
          onChange={(pad_pairs) => set({ pad_pairs })}
        />
        <Count label="Waves" value={answer.waves.length} min={1} max={40} onChange={(waves) => set({ waves })} />
        {asked.school !== "beat" && (
          <Count
            label="Rounds"
            value={asked.rounds ?? answer.rounds}
            min={1}
            max={60}
            onChange={(rounds) => set({ rounds, waves: null })}
          />
        )}
        <Stepper
          label="Change"
          value={answer.change_s}
          min={0}
          max={300}
          show={clock}
          read={readClock}
          step={() => 5}
          onChange={(change_s) => set({ change_s, waves: null })}
        />
      </div>
    </section>
  );
}

function Count({
  label,
  value,
  min,
  max,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
}) {
  const read = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : null);
  return (
    <Stepper
      label={label}
      value={value}
      min={min}
      max={max}
      show={String}
      read={read}
      step={() => 1}
      onChange={onChange}
    />
  );
}
