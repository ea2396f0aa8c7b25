import { useState } from "react";
import { whole } from "../../domain/figures";
import { TextField } from "../../ui/Field";
import { Progress } from "../../ui/Progress";
import { Sheet } from "../../ui/Sheet";
import { type Camp, difference, type State, shortDay, withState } from "./plan";
import { type Solved, useSolving } from "./solving";

interface Props {
  camp: Camp;
  onTake: (state: State, solved: { bound_gap: number | null }) => void;
  onClash: (solved: Solved) => void;
  onClose: () => void;
}

/** Another day of the bout: solved first and told, and taken only then. */
export function MoveBout({ camp, onTake, onClash, onClose }: Props) {
  const [day, setDay] = useState(camp.asked.bout_on ?? "");
  const [found, setFound] = useState<Solved | null>(null);
  const solving = useSolving(camp.id);
  const asked = { ...camp.asked, bout_on: day };
  const look = () =>
    solving.run({ asked, hold: camp.hold }, (solved) =>
      solved.status === "impossible" ? onClash(solved) : setFound(solved),
    );
  const after = found && withState(camp, { asked, placed: found.placed, hold: camp.hold });
  const change = found && difference(camp, found.placed);
  return (
    <Sheet label="Move the bout" className="w-[min(560px,calc(100vw-16px))]" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          look();
        }}
      >
        <h2>Move the bout</h2>
        <TextField
          label="New day"
          type="date"
          required
          min={camp.asked.start}
          value={day}
          onChange={(event) => {
            setDay(event.target.value);
            setFound(null);
          }}
        />
        <p className="flex flex-wrap gap-2">
          <button
            type="submit"
            className="act"
            disabled={!day || day === camp.asked.bout_on || solving.progress !== null}
          >
            Show what changes
          </button>
          <button type="button" className="act" onClick={onClose}>
            Leave it
          </button>
        </p>
        {solving.progress && <Progress {...solving.progress} onStop={solving.stop} />}
        {solving.error && (
          <p role="alert">
            <span className="seal">Not done</span> {solving.error.message}
          </p>
        )}
        {found && after && change && (
          <section aria-label="What changes" className="rule-t pt-3">
            <p>
              {change.moved} {change.moved === 1 ? "session moves" : "sessions move"}, {change.changed} change,{" "}
              {change.added} come, {change.gone} go. What is locked or past stays.
            </p>
            <p className="quiet text-[13px]">
              From {camp.placed.length} sessions, load {whole(total(camp))}, to {after.placed.length}, load{" "}
              {whole(total(after))}. The last is on {shortDay(after.placed.at(-1)?.on ?? day)}.
            </p>
            <p className="pt-3">
              <button
                type="button"
                className="act main"
                onClick={() => onTake({ asked, placed: found.placed, hold: camp.hold }, found)}
              >
                Take it
              </button>
            </p>
          </section>
        )}
      </form>
    </Sheet>
  );
}

const total = (camp: Camp): number => camp.placed.reduce((sum, each) => sum + each.load, 0);
