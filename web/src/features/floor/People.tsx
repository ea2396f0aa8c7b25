import type { Schemas } from "../../api/client";
import { doing, firstName, type Member, type Piece, works } from "../../domain/clock/crew";
import { bandWord, targetAhead, targetAt } from "../../domain/devices/band";
import type { Measured } from "./useDevices";

export type Shown = Schemas["Shown"];

/** What every screen shows of the people on the floor. Nothing where there is but one, and no strap. */
export function shownPeople(crew: Member[], measured: Measured[], piece: Piece | null, at: number, shift: number) {
  if (crew.length < 2 && !measured[0]?.heart && crew[0]?.sensor === "none") return [];
  return crew.map(({ letter, name, sensor }, place): Shown => {
    const { heart, own, strikes } = measured[place] ?? { heart: null, own: undefined, strikes: 0 };
    const working = piece !== null && works(piece, place, crew.length, shift);
    const target = (working ? targetAt : targetAhead)(own?.targets ?? [], Math.max(0, at));
    return {
      letter,
      name: firstName(name),
      place,
      bpm: heart?.bpm ?? null,
      word: bandWord(heart?.bpm ?? null, heart?.state === "lost", target, working),
      strikes: sensor === "none" ? null : strikes,
      low_bpm: target?.low_bpm ?? null,
      high_bpm: target?.high_bpm ?? null,
    };
  });
}

/** Whose turn an interval is, by name or letter; empty where all work, or all rest. */
export function turnOf(people: Shown[], piece: Piece | null, shift: number): string {
  if (piece?.turn == null) return "";
  const own = people.find((one) => works(piece, one.place, people.length, shift));
  return own ? own.name || own.letter : "";
}

interface Props {
  people: Shown[];
  piece: Piece | null;
  shift: number;
  /** Look for a strap that was lost; left out on screens that only follow. */
  onFind?: ((place: number) => void) | undefined;
}

/** Who works and who rests, with the heart of each against its band: by word and by shape, not by colour. */
export function People({ people, piece, shift, onFind }: Props) {
  if (people.length === 0) return null;
  const many = people.length > 2;
  return (
    <ul
      aria-label="On the floor"
      className="grid gap-x-6 gap-y-1 px-5 pt-2 wide:gap-x-14 wide:px-12"
      style={{ gridTemplateColumns: `repeat(auto-fit, minmax(${many ? "240px" : "min(100%, 320px)"}, 1fr))` }}
    >
      {people.map((shown) => (
        <Person
          key={shown.place}
          shown={shown}
          solid={piece !== null && works(piece, shown.place, people.length, shift)}
          verb={doing(piece, shown.place, people.length, shift)}
          small={many}
          onFind={onFind}
        />
      ))}
    </ul>
  );
}

interface PersonProps {
  shown: Shown;
  solid: boolean;
  verb: string;
  small: boolean;
  onFind?: ((place: number) => void) | undefined;
}

function Person({ shown, solid, verb, small, onFind }: PersonProps) {
  const size = small
    ? "h-[40px] w-[40px] text-[30px]"
    : "h-[44px] w-[44px] text-[34px] wide:h-[8.75vh] wide:w-[8.75vh] wide:text-[6.75vh]";
  const strapped = shown.bpm != null || shown.word === "lost";
  return (
    <li className="flex items-center gap-3 wide:gap-5" data-word={shown.word}>
      <b
        className={`flex flex-none items-center justify-center border-[3px] border-current leading-none ${size}`}
        style={solid ? { background: "var(--ink)", color: "var(--paper)" } : undefined}
      >
        {shown.letter}
      </b>
      <span className="min-w-0 flex-1">
        <span
          className={`block truncate font-semibold leading-[1.05] ${small ? "text-[24px]" : "text-[26px] wide:text-[5vh]"}`}
        >
          {shown.name} <span className={shown.name ? "" : "inline-block first-letter:uppercase"}>{verb}</span>
        </span>
        {strapped && <Band shown={shown} />}
      </span>
      <span
        className={`flex flex-col items-end leading-[1.1] font-medium whitespace-nowrap ${small ? "text-[20px]" : "text-[22px] wide:text-[3.75vh]"}`}
      >
        {shown.word === "lost" && onFind ? (
          <button type="button" className="min-h-[44px] cursor-pointer underline" onClick={() => onFind(shown.place)}>
            strap lost
          </button>
        ) : (
          <span>{shown.word === "lost" ? "strap lost" : shown.word}</span>
        )}
        {shown.strikes != null && <span data-testid={`strikes-${shown.letter}`}>{shown.strikes} strikes</span>}
      </span>
      {shown.bpm != null && (
        <b
          data-testid={`heart-${shown.letter}`}
          className={`leading-[0.8] font-semibold tabular-nums ${small ? "text-[40px]" : "text-[52px] wide:text-[11vh]"} ${shown.word === "lost" ? "opacity-50" : ""}`}
        >
          {shown.bpm}
        </b>
      )}
    </li>
  );
}

/** The band's line reaches this far beyond its posts [bpm]. */
const BEYOND = 30;
const WIDE = 220;

/** A line, two posts with a bar between, and a pointer above. */
function Band({ shown }: { shown: Shown }) {
  const { low_bpm: low, high_bpm: high, bpm } = shown;
  if (low == null || high == null) return null;
  const x = (value: number) =>
    Math.min(WIDE - 8, Math.max(8, ((value - low + BEYOND) / (high - low + 2 * BEYOND)) * WIDE));
  const lost = shown.word === "lost";
  return (
    <svg
      viewBox={`0 0 ${WIDE} 34`}
      className="mt-[2px] block h-[26px] w-full wide:h-[4.25vh]"
      preserveAspectRatio="xMinYMid meet"
      role="img"
      aria-label={`Band ${Math.round(low)} to ${Math.round(high)} beats a minute`}
    >
      <path
        d={`M0 24H${WIDE}`}
        stroke="currentColor"
        strokeWidth={1.5}
        strokeDasharray={lost ? "3 5" : undefined}
        opacity={0.7}
      />
      <path d={`M${x(low)} 24H${x(high)}`} stroke="currentColor" strokeWidth={6} />
      <path d={`M${x(low)} 14V34M${x(high)} 14V34`} stroke="currentColor" strokeWidth={3} />
      {bpm != null && (
        <path
          d={`M${x(bpm)} 20l-11 -17h22z`}
          fill={lost ? "none" : "currentColor"}
          stroke="currentColor"
          strokeWidth={lost ? 1.5 : 0}
        />
      )}
    </svg>
  );
}
