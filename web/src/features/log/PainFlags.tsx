import { useQuery } from "@tanstack/react-query";
import { vocabulary } from "../../api/queries";
import { flagged, type Pain } from "../../domain/outbox/written";

interface Props {
  pain: Pain[];
  onChange: (pain: Pain[]) => void;
}

/** Where something hurts: a touch marks it, another takes the mark off. What is said to it stands below. */
export function PainFlags({ pain, onChange }: Props) {
  const places = useQuery(vocabulary).data?.pain ?? [];
  const on = (where: string, side: Pain["side"]) =>
    pain.some((one) => one.where === where && (one.side ?? null) === side);
  const marked = places.filter(({ id }) => pain.some((one) => one.where === id));
  const said = [...new Set(marked.map((place) => place.said))];
  return (
    <fieldset className="border-b border-[var(--ink)] py-3">
      <legend className="sr-only">Mark a niggle</legend>
      <p className="quiet pb-2 text-[13px]">
        Where does something hurt? For the coach's care, not a diagnosis; kept inside the club.
      </p>
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        {places.map((place) => (
          <span key={place.id} className="flex items-center gap-1">
            <span className="pr-1">{place.word}</span>
            {(place.sides ? (["left", "right"] as const) : ([null] as const)).map((side) => (
              <button
                key={side ?? "here"}
                type="button"
                className={`act ${on(place.id, side) ? "main" : ""}`}
                aria-pressed={on(place.id, side)}
                aria-label={side ? `${side} ${place.word}` : place.word}
                onClick={() => onChange(flagged(pain, place.id as Pain["where"], side))}
              >
                {side ?? "here"}
              </button>
            ))}
          </span>
        ))}
      </div>
      {said.map((words) => (
        <p key={words} className="pt-2">
          <span className="seal">Pain</span> {words}
        </p>
      ))}
    </fieldset>
  );
}
