import { useQuery } from "@tanstack/react-query";
import { people as peopleQuery } from "../../api/queries";
import {
  LETTERS,
  type Member,
  member,
  type Piece,
  type Sensor,
  type Strap,
  simulates,
  works,
} from "../../domain/clock/crew";
import { offersBluetooth } from "../../domain/devices/bluetooth";
import { clock } from "../../domain/time";
import { Choice } from "../../ui/Choice";
import type { Measured } from "./useDevices";

interface Props {
  crew: Member[];
  measured: Measured[];
  /** Some work is done in pairs. */
  pairs: boolean;
  timeline: Piece[];
  failed: string | null;
  onChange: (place: number, part: Partial<Member>) => void;
  onAdd: () => void;
  onLess: () => void;
  onFind: (place: number) => void;
}

const STRAPS: { id: Strap; name: string }[] = [
  { id: "simulated", name: "simulated strap" },
  ...(offersBluetooth() ? [{ id: "bluetooth" as const, name: "strap by Bluetooth" }] : []),
];
const SENSORS: { id: Sensor; name: string }[] = [{ id: "simulated", name: "simulated sensor" }];

/** What each really works and rests, where work is done in turns; where one holds, until the coach swaps them. */
export function shareOf(timeline: Piece[], people: number): string {
  const spent = (of: Piece[]) => of.reduce((total, piece) => total + piece.seconds, 0);
  const workOf_s = (place: number) => spent(timeline.filter((piece) => works(piece, place, people, 0)));
  const work_s = workOf_s(0);
  const all_s = spent(timeline);
  if (!work_s) return "";
  if (timeline.some((piece) => piece.held)) {
    return `A works ${clock(work_s)} and B ${clock(workOf_s(1))} of ${clock(all_s)}: one holds until you swap them.`;
  }
  const ratio = ((all_s - work_s) / work_s).toFixed(1);
  return `Each works ${clock(work_s)} and rests ${clock(all_s - work_s)} of ${clock(all_s)}: 1 to ${ratio}.`;
}

/** Who is on the floor, and what measures them. */
export function CrewEditor({ crew, measured, pairs, timeline, failed, onChange, onAdd, onLess, onFind }: Props) {
  const known = useQuery(peopleQuery).data ?? [];
  const options = known.map((person) => ({ id: String(person.id), name: person.name }));
  const named = (place: number, id: string) => {
    const person = known.find((one) => String(one.id) === id) ?? null;
    const { personId, name } = member(place, person);
    onChange(place, { personId, name });
  };
  return (
    <div className="pt-3">
      <b>On the floor</b>
      {crew.map((one, place) => (
        <div key={one.letter} className="flex flex-wrap items-end gap-x-4 gap-y-1 pt-1">
          <b className="flex h-[30px] w-[30px] items-center justify-center border-2 border-current max-[899px]:h-[44px] max-[899px]:w-[44px]">
            {one.letter}
          </b>
          <Choice
            label={`Person ${one.letter}`}
            value={String(one.personId ?? "")}
            none={place === 0 ? "nobody in particular" : "a partner"}
            options={options}
            onChange={(id) => named(place, id)}
          />
          <Choice
            label="Heart rate"
            value={one.strap === "none" ? "" : one.strap}
            none="no strap"
            options={STRAPS}
            onChange={(strap) => onChange(place, { strap: (strap || "none") as Strap })}
          />
          <Choice
            label="Strikes"
            value={one.sensor === "none" ? "" : one.sensor}
            none="no sensor"
            options={SENSORS}
            onChange={(sensor) => onChange(place, { sensor: (sensor || "none") as Sensor })}
          />
          {one.strap === "bluetooth" && (
            <button type="button" className="act" onClick={() => onFind(place)}>
              {measured[place]?.heart?.state === "on"
                ? `Strap found, ${measured[place]?.heart?.bpm ?? ""}`
                : "Find the strap"}
            </button>
          )}
        </div>
      ))}
      <p className="flex flex-wrap items-center gap-3 pt-2 text-[15px]">
        {crew.length < LETTERS.length && (
          <button type="button" className="act" onClick={onAdd}>
            Add a person
          </button>
        )}
        {crew.length > 1 && (
          <button type="button" className="act" onClick={onLess}>
            Without {crew.at(-1)?.letter}
          </button>
        )}
        {pairs && <span>{shareOf(timeline, crew.length)}</span>}
      </p>
      {crew.some(simulates) && (
        <p className="pt-1 text-[15px] opacity-80">
          Simulated: what the engine expects of them, not a measurement. The log says so.
        </p>
      )}
      {failed && <p role="alert">{failed}</p>}
    </div>
  );
}
