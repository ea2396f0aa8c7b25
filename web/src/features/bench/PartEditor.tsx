import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { shelf } from "../../domain/device/shelf";
import { changed, type Field, fieldsOf, type Part } from "../../domain/session/tree";
import { clock, readClock } from "../../domain/time";
import { Choice } from "../../ui/Choice";
import { capital } from "../../ui/capital";
import { Stepper } from "../../ui/Stepper";
import { Tick } from "../../ui/Tick";
import { Levels } from "./Levels";
import { levelKey } from "./levels";
import { LONGEST_S, MOST_REPS, MOST_ROUNDS, readCount, stepOf } from "./limits";
import { Pattern } from "./Pattern";
import { Sums } from "./Sums";
import type { Typing } from "./useTyped";

interface Props {
  columns: string;
  part: Part;
  summary: Schemas["PartSummary"] | undefined;
  tempos: Schemas["TempoOut"][];
  purposes: Schemas["Named"][];
  gloves: Schemas["Named"][];
  items: Schemas["Named"][];
  typed: string | null;
  typing: Typing;
  onTyped: (text: string | null) => void;
  onChange: (part: Part) => void;
  /** Hears what a step of a number would make of the part. */
  onAhead: (part: Part) => void;
  /** Lay the several parts that the lines name. */
  onLay: () => void;
  onDouble: () => void;
  onRemove: () => void;
  onClose: () => void;
}

/** The row in hand: its pattern as text, and the steppers that write it. */
export function PartEditor(props: Props) {
  const {
    columns,
    part,
    summary,
    tempos,
    purposes,
    gloves,
    items,
    typed,
    typing,
    onTyped,
    onChange,
    onAhead,
    onLay,
    onDouble,
    onRemove,
    onClose,
  } = props;
  const [levels, setLevels] = useState(recallLevels);
  /** The row has no part yet: it is its line alone. */
  const fresh = typing.fresh && typed !== null;
  const texts = useMemo(
    () =>
      new Map([
        ["", summary?.text ?? ""],
        ...(summary?.levels ?? []).map((each) => [levelKey(each.path), each.text] as const),
      ]),
    [summary],
  );
  const resets = Object.fromEntries(tempos.map((tempo) => [tempo.id, tempo.reset_s]));
  const withField = (field: Field, value: number | Schemas["TempoOut"]["id"]) => ({
    ...part,
    tree: changed(part.tree, field, value),
  });
  const set = (field: Field, value: number | Schemas["TempoOut"]["id"]) => {
    onTyped(null);
    onChange(withField(field, value));
  };
  const say = (change: Partial<Part>) => {
    // A line that has been read would say the name and the purpose again; one that has not must not be lost.
    if (!typing.waiting) onTyped(null);
    onChange({ ...part, ...change });
  };
  return (
    <div className="-mx-[10px] mb-2 border border-[var(--ink)] bg-[var(--sheet)] px-[10px] pt-2 pb-2">
      <div className={`${columns} items-baseline`}>
        <span className="quiet">{summary ? clock(summary.start_s) : ""}</span>
        <input
          aria-label="Part"
          className="field font-semibold min-[700px]:-ml-[11px]"
          value={part.name}
          readOnly={fresh}
          maxLength={80}
          onChange={(event) => say({ name: event.target.value })}
        />
        <div className="max-[699px]:order-last max-[699px]:col-span-3 max-[699px]:pt-2 min-[700px]:-ml-[11px]">
          <Pattern
            text={summary?.text ?? ""}
            typed={typed}
            typing={typing}
            onTyped={onTyped}
            onLay={onLay}
            onDone={onClose}
          />
        </div>
        <Sums summary={summary} />
      </div>
      <fieldset disabled={typing.waiting} className="flex flex-wrap items-start gap-x-4 gap-y-2">
        {!fresh && (
          <>
            {!levels &&
              fieldsOf(part.tree, resets).map((field) => (
                <FieldEditor
                  key={`${field.kind}-${field.path.join(".")}`}
                  field={field}
                  tempos={tempos}
                  onSet={set}
                  onAhead={(value) => onAhead(withField(field, value))}
                />
              ))}
            <Choice
              label="For"
              value={part.purpose ?? ""}
              none="nothing said"
              options={purposes}
              onChange={(purpose) => say({ purpose: (purpose || null) as Part["purpose"] })}
            />
            <Choice
              label="Hands"
              value={part.gloves ?? ""}
              none="nothing said"
              options={gloves}
              onChange={(id) => say({ gloves: (id || null) as Part["gloves"] })}
            />
            <span className="flex gap-4 self-end pb-1">
              {items.map((item) => (
                <Tick
                  key={item.id}
                  label={capital(item.name)}
                  on={part.kit?.some((id) => id === item.id) ?? false}
                  onChange={(on) => {
                    const others = (part.kit ?? []).filter((id) => id !== item.id);
                    say({ kit: (on ? [...others, item.id] : others) as Part["kit"] });
                  }}
                />
              ))}
            </span>
          </>
        )}
        <div className="ml-auto flex gap-4 self-end text-[13px]">
          {!fresh && (
            <>
              <button
                type="button"
                className="link min-h-[30px]"
                aria-expanded={levels}
                onClick={() => {
                  keepLevels(!levels);
                  setLevels(!levels);
                }}
              >
                {levels ? "Steppers only" : "Level by level"}
              </button>
              <button type="button" className="link min-h-[30px]" onClick={onDouble}>
                Double
              </button>
            </>
          )}
          <button type="button" className="link min-h-[30px]" onClick={onRemove}>
            Remove
          </button>
          <button type="button" className="link min-h-[30px]" onClick={onClose}>
            Close
          </button>
        </div>
      </fieldset>
      {levels && !fresh && (
        <fieldset disabled={typing.waiting}>
          <legend className="sr-only">Level by level</legend>
          <Levels
            tree={part.tree}
            texts={texts}
            tempos={tempos}
            onChange={(tree) => {
              onTyped(null);
              onChange({ ...part, tree });
            }}
            onAhead={(tree) => onAhead({ ...part, tree })}
          />
        </fieldset>
      )}
    </div>
  );
}

const levels = shelf<boolean>("levels", 1, (value) => value === true || value === "open");
const recallLevels = () => levels.get() ?? false;
const keepLevels = (open: boolean) => levels.set(open);

interface FieldProps {
  field: Field;
  tempos: Schemas["TempoOut"][];
  onSet: (field: Field, value: number | Schemas["TempoOut"]["id"]) => void;
  onAhead: (value: number) => void;
}

function FieldEditor({ field, tempos, onSet, onAhead }: FieldProps) {
  const moves = { onChange: (value: number) => onSet(field, value), onAhead };
  if (field.kind === "count") {
    return (
      <Stepper
        label={field.label}
        value={field.value}
        min={1}
        max={MOST_ROUNDS}
        show={String}
        read={readCount}
        step={() => 1}
        {...moves}
      />
    );
  }
  if (field.kind === "fixed") {
    return (
      <Stepper
        label={field.label}
        value={field.value}
        min={field.min}
        max={field.max}
        show={String}
        read={readCount}
        step={() => field.step}
        {...moves}
      />
    );
  }
  const dose = field.kind === "interval" ? field.dose : { seconds: field.value };
  const stepper =
    dose === "ladder" ? null : "reps" in dose ? (
      <Stepper
        label={`${field.label}, reps`}
        value={dose.reps}
        min={1}
        max={MOST_REPS}
        show={String}
        read={readCount}
        step={(reps) => (reps < 20 ? 1 : 10)}
        {...moves}
      />
    ) : (
      <Stepper
        label={field.label}
        value={dose.seconds}
        min={field.kind === "interval" ? 1 : 0}
        max={LONGEST_S}
        show={clock}
        read={readClock}
        step={stepOf}
        {...moves}
      />
    );
  if (field.kind === "between") return stepper;
  return (
    <div className="flex items-end gap-1">
      {stepper}
      <label>
        <span className="sr-only">{field.label}: effort</span>
        <select
          className="h-[30px] rounded-[2px] border border-[var(--ink)] bg-[var(--sheet)] px-1 max-[899px]:h-[44px]"
          value={field.tempo}
          onChange={(event) => onSet(field, event.target.value as Schemas["TempoOut"]["id"])}
        >
          {tempos.map((tempo) => (
            <option key={tempo.id} value={tempo.id}>
              {tempo.word}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}
