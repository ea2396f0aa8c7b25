import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { sessions as sessionsQuery } from "../../api/queries";
import { whole } from "../../domain/figures";
import { SelectField, TextField } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { Tick } from "../../ui/Tick";
import { type Camp, ladderOf, nextFree, type Placed, shortDay, type Told } from "./plan";

const SIZES = [
  { id: "whole", name: "whole" },
  { id: "two thirds", name: "two thirds of the rounds" },
  { id: "half", name: "half of the rounds" },
];
type Size = Placed["size"];

interface Props {
  camp: Camp;
  placed: Placed;
  onChange: (change: Partial<Told>) => void;
  onMove: (on: string) => void;
  onDrop: () => void;
  onRepeat: () => void;
  onClose: () => void;
}

/** A session of a camp: when, what, how far its knobs are turned; and ways on where it was missed or too hard. */
export function PieceSheet({ camp, placed, onChange, onMove, onDrop, onRepeat, onClose }: Props) {
  const ladder = ladderOf(camp, placed.purpose);
  const step = placed.step === null ? undefined : ladder?.steps[placed.step];
  const over = placed.done !== null;
  const name = `${placed.word}, ${shortDay(placed.on)}`;
  return (
    <Sheet label={name} className="w-[min(560px,calc(100vw-16px))]" onClose={onClose}>
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="first-letter:uppercase">{name}</h2>
        <button type="button" className="link min-h-[44px]" onClick={onClose}>
          Close
        </button>
      </div>
      <p className="quiet pb-2">
        {placed.knob}. About {placed.minutes} min, load {whole(placed.planned_load)}
        {placed.lactic && ", a lactic day"}
        {!placed.lactic && placed.hard && ", a hard day"}.
      </p>
      {placed.done ? (
        <p className="rule-t py-3">
          <b>Done:</b> effort {Math.round(placed.done.rpe)}, load {whole(placed.done.load)}
          {!placed.done.finished && ", not finished"}. It stays where it was done.
        </p>
      ) : null}
      {(placed.missed || placed.done?.too_hard) && (
        <WaysOn camp={camp} placed={placed} onChange={onChange} onMove={onMove} onRepeat={onRepeat} onClose={onClose} />
      )}
      {!over && (
        <div className="rule-t grid gap-3 pt-3 min-[480px]:grid-cols-2">
          <TextField
            label="Day"
            type="date"
            min={camp.asked.start}
            max={camp.last}
            value={placed.on}
            onChange={(event) => event.target.value && onMove(event.target.value)}
          />
          {!placed.edited && placed.step !== null && (
            <SelectField
              label="Purpose"
              value={placed.purpose}
              options={camp.ladders.map((each) => ({ id: each.purpose, name: each.word }))}
              onChange={(purpose) => onChange({ purpose, step: 0 })}
            />
          )}
          {step && ladder && (
            <div>
              <p className="label-text pb-1">Knobs</p>
              <div className="flex flex-wrap items-center gap-2">
                <button
                  type="button"
                  className="act"
                  disabled={placed.step === 0}
                  onClick={() => onChange({ step: (placed.step ?? 0) - 1 })}
                >
                  Easier
                </button>
                <button
                  type="button"
                  className="act"
                  disabled={(placed.step ?? 0) >= ladder.steps.length - 1}
                  onClick={() => onChange({ step: (placed.step ?? 0) + 1 })}
                >
                  Harder
                </button>
                <span className="quiet text-[13px]">
                  step {(placed.step ?? 0) + 1} of {ladder.steps.length}
                  {step.name && `: ${step.name}`}
                </span>
              </div>
            </div>
          )}
          {step && (
            <SelectField
              label="Size"
              value={placed.size}
              options={SIZES}
              onChange={(size) => onChange({ size: size as Size })}
            />
          )}
        </div>
      )}
      {!over && (
        <div className="flex flex-wrap items-center gap-3 pt-3">
          <Tick
            label="Locked: solving leaves it where it is"
            on={placed.locked}
            onChange={(locked) => onChange({ locked })}
          />
        </div>
      )}
      <p className="flex flex-wrap gap-2 pt-3">
        {placed.session_id !== null && (
          <>
            <Link className="act main" to={`/bench/${placed.session_id}`}>
              Open on the Bench
            </Link>
            {!over && (
              <Link className="act" to={`/floor/${placed.session_id}`}>
                Run it
              </Link>
            )}
          </>
        )}
        {placed.done && (
          <Link className="act" to={`/log/${placed.done.entry_id}`}>
            What was logged
          </Link>
        )}
        {!over && (
          <button type="button" className="act" onClick={onDrop}>
            Take it out
          </button>
        )}
      </p>
    </Sheet>
  );
}

/** What a coach does about a session that was missed, or was too hard. */
function WaysOn({ camp, placed, onChange, onMove, onRepeat, onClose }: Omit<Props, "onDrop">) {
  const free = nextFree(camp);
  return (
    <section aria-label="What now" className="rule-t py-3">
      <p className="flex items-center gap-2">
        <span className="seal">{placed.missed ? "Missed" : "Hard"}</span>
        {placed.missed
          ? "Its day is over and nothing was logged."
          : `Rated ${Math.round(placed.done?.rpe ?? 0)}${placed.done?.finished ? "" : ", and not finished"}.`}
      </p>
      <p className="flex flex-wrap gap-2 pt-2">
        {placed.missed && (
          <>
            <button
              type="button"
              className="act"
              onClick={() => {
                onChange({ skipped: true });
                onClose();
              }}
            >
              Let it go
            </button>
            <button
              type="button"
              className="act"
              disabled={!free}
              onClick={() => {
                if (free) onMove(free);
                onClose();
              }}
            >
              {free ? `Shift it to ${shortDay(free)}` : "No free day is left"}
            </button>
          </>
        )}
        {placed.step !== null && (
          <button
            type="button"
            className="act"
            onClick={() => {
              onRepeat();
              onClose();
            }}
          >
            Repeat its step next time
          </button>
        )}
      </p>
    </section>
  );
}

interface AddProps {
  camp: Camp;
  on: string;
  stepOf: (purpose: string) => number;
  onAdd: (told: Told) => void;
  onClose: () => void;
}

/** A session put on a day by hand: of a purpose at the step it stands at, or one of the club's own. */
export function AddPiece({ camp, on, stepOf, onAdd, onClose }: AddProps) {
  const sessions = useQuery(sessionsQuery).data ?? [];
  const [own, setOwn] = useState("");
  const put = (told: Partial<Told>) => {
    onAdd({
      uid: crypto.randomUUID(),
      on,
      order: 9,
      purpose: "skill",
      step: null,
      size: "whole",
      locked: false,
      skipped: false,
      session_id: null,
      ...told,
    });
    onClose();
  };
  const mine = sessions.find((each) => String(each.id) === own);
  return (
    <Sheet label={`Add a session on ${shortDay(on)}`} className="w-[min(520px,calc(100vw-16px))]" onClose={onClose}>
      <h2>Add on {shortDay(on)}</h2>
      {camp.ladders.length === 0 && (
        <p className="pt-2">Solve the weeks first: then there is something to choose from.</p>
      )}
      <ul className="pt-2">
        {camp.ladders.map((ladder) => {
          const step = Math.min(stepOf(ladder.purpose), ladder.steps.length - 1);
          const told = ladder.steps[step];
          return (
            <li key={ladder.purpose} className="rule-t">
              <button
                type="button"
                className="min-h-[44px] w-full cursor-pointer text-left hover:bg-[#E9E3D5]"
                onClick={() => put({ purpose: ladder.purpose, step })}
              >
                <b className="inline-block first-letter:uppercase">{ladder.word}</b>{" "}
                <span className="quiet text-[13px]">
                  {told?.words}, {told?.minutes.whole} min, load {whole(told?.load.whole ?? 0)}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      <div className="rule-t flex flex-wrap items-end gap-3 pt-3">
        <div className="min-w-[220px] flex-1">
          <SelectField
            label="Or a session of the club's own"
            value={own}
            none="none"
            options={sessions.map((each) => ({ id: String(each.id), name: each.title }))}
            onChange={setOwn}
          />
        </div>
        <button
          type="button"
          className="act"
          disabled={!mine}
          onClick={() => mine && put({ purpose: mine.target, session_id: mine.id })}
        >
          Put it there
        </button>
        <button type="button" className="act" onClick={onClose}>
          Cancel
        </button>
      </div>
    </Sheet>
  );
}
