import type { Schemas } from "../api/client";
import { Stepper } from "../parts/Stepper";
import type { Draft } from "./draft";

interface Props {
  draft: Draft;
  people: Schemas["PersonOut"][];
  targets: Schemas["TargetOut"][];
  minutes: number;
  proposing: boolean;
  /** What the save key says, and whether it can be pressed. */
  save: { word: string; can: boolean };
  canRun: boolean;
  onEdit: (change: Partial<Draft>) => void;
  onMinutes: (minutes: number) => void;
  onPropose: () => void;
  onSave: () => void;
  onRun: () => void;
}

/** The head of the bench: title and person, purpose and minutes, and the three keys. */
export function Head(props: Props) {
  const { draft, people, targets, minutes, proposing, save, canRun, onEdit, onMinutes, onPropose, onSave, onRun } =
    props;
  return (
    <header className="flex flex-wrap items-start justify-between gap-x-4 gap-y-3">
      <div className="min-w-[260px] flex-1">
        <h1>
          <input
            aria-label="Title"
            className="w-full border-b border-transparent bg-transparent hover:border-[var(--rule-2)]"
            value={draft.document.title}
            maxLength={120}
            onChange={(event) =>
              onEdit({ document: { ...draft.document, title: event.target.value || "New session" } })
            }
          />
        </h1>
        <label className="quiet">
          for{" "}
          <select
            className="max-w-[260px] cursor-pointer bg-transparent py-1 underline decoration-[var(--rule-2)] underline-offset-4 font-semibold text-[var(--ink)]"
            value={draft.personId ?? ""}
            onChange={(event) => onEdit({ personId: event.target.value ? Number(event.target.value) : null })}
          >
            <option value="">nobody in particular</option>
            {people.map((person) => (
              <option key={person.id} value={person.id}>
                {person.name}, {person.sport}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <label className="label-text">
          <span className="block pb-1">Purpose</span>
          <select
            className="field h-[30px] min-h-0 w-[138px] cursor-pointer py-0 max-[899px]:h-[44px]"
            value={draft.target}
            onChange={(event) => onEdit({ target: event.target.value as Schemas["SessionIn"]["target"] })}
          >
            {targets.map((target) => (
              <option key={target.id} value={target.id}>
                {target.name}
              </option>
            ))}
          </select>
        </label>
        <Stepper
          label="Minutes"
          value={minutes}
          min={4}
          max={120}
          show={String}
          read={(text) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : null)}
          step={() => 5}
          onChange={onMinutes}
        />
        <button type="button" className="act" disabled={proposing} onClick={onPropose}>
          {proposing ? (
            "Searching …"
          ) : (
            <span>
              <u>P</u>ropose
            </span>
          )}
        </button>
        <button type="button" className="act" disabled={!save.can} onClick={onSave}>
          {save.word}
        </button>
        <button type="button" className="act main" disabled={!canRun} onClick={onRun}>
          <span>
            <u>R</u>un
          </span>
        </button>
      </div>
    </header>
  );
}
