import {
  type Board,
  calledNames,
  inWave,
  type Line,
  linesOf,
  shownAt,
  swappedAt,
  waveAt,
} from "../../domain/clock/board";

interface Props {
  board: Board;
  at: number;
}

/** So many lines stand in two columns; more in as many as keep a column this tall. */
const TALL = 7;
const TALLEST = 13;
const MOST_COLUMNS = 4;
/** A letter is about so wide, as a share of the font's size, measured. */
const LETTER = 0.44;
/** Of the screen, for all lines with their heads. */
const ROOM_VH = 74;
const ROOM_VW = 92;
const STATION = 0.25;

/**
 * The board of a class: every station with who is there and who comes next. It fills its place: for fourteen people it
 * reads at 8 m on a hall screen, for two dozen at 5 m.
 */
export function ClassBoard({ board, at }: Props) {
  const wave = waveAt(board, at);
  const on = inWave(board, at);
  const swapped = swappedAt(board, at);
  const lines = linesOf(board, wave);
  const columns = lines.length <= 2 * TALL ? 2 : Math.min(MOST_COLUMNS, Math.max(2, Math.ceil(lines.length / TALLEST)));
  const tall = Math.max(1, Math.ceil(lines.length / columns));
  const last = wave >= board.waves.length;
  const groups = Array.from({ length: columns }, (_, column) => lines.slice(column * tall, (column + 1) * tall));
  const called = calledNames(board.people.map((each) => each.name));
  const longest = Math.max(5, ...[...called.values()].map((name) => name.length));
  const across = (ROOM_VW / columns) * ((1 - STATION) / 2);
  const size = `min(${(0.86 * (ROOM_VH / (tall + 0.6))).toFixed(2)}vh, ${(across / (LETTER * longest)).toFixed(2)}vw)`;
  return (
    <section
      aria-label="The board"
      className="grid min-h-0 flex-1 gap-x-[2vw] overflow-hidden px-4 pt-1 wide:px-[3vw]"
      style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
    >
      {groups.map((group, column) => (
        <table
          // biome-ignore lint/suspicious/noArrayIndexKey: the columns stand in order
          key={column}
          className="h-full w-full table-fixed border-collapse text-left leading-none"
        >
          <thead>
            <tr className="text-[max(15px,2vh)] opacity-80">
              <th scope="col" className="pb-[2px] font-semibold" style={{ width: `${100 * STATION}%` }}>
                Station
              </th>
              <th scope="col" className="pb-[2px] font-semibold">
                {on || wave === 0 ? "Now" : "Was"}
              </th>
              <th scope="col" className="pb-[2px] font-semibold">
                {last ? "" : "Next"}
              </th>
            </tr>
          </thead>
          <tbody>
            {group.map((line, number) => (
              <tr
                // biome-ignore lint/suspicious/noArrayIndexKey: places of one station stand in order
                key={`${line.station} ${number}`}
                className="border-t border-[var(--rule-2)]"
                style={{ fontSize: size }}
              >
                <Station line={line} repeated={group[number - 1]?.station === line.station} swapped={swapped} />
                <td className={`overflow-hidden whitespace-nowrap ${on ? "font-bold" : "font-semibold opacity-60"}`}>
                  {called.get(line.now) ?? ""}
                </td>
                <td className={`overflow-hidden whitespace-nowrap ${on ? "font-semibold opacity-80" : "font-bold"}`}>
                  {last ? "" : (called.get(line.next) ?? "")}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </section>
  );
}

/** A station by its name; the role at the pads stands smaller beside it. */
function Station({ line, repeated, swapped }: { line: Line; repeated: boolean; swapped: boolean }) {
  const shown = shownAt(line.station, swapped);
  const role = /^(pads \d+) (hit|hold)$/.exec(shown);
  return (
    <td className="overflow-hidden pr-2 font-semibold whitespace-nowrap opacity-90">
      <span className={role ? "text-[0.58em]" : "text-[0.72em]"}>{repeated ? "" : (role?.[1] ?? shown)}</span>
      {role && <span className="pl-[0.25em] text-[0.4em]">{role[2]}s</span>}
    </td>
  );
}
