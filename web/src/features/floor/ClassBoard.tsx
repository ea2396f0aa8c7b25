import { type Board, calledNames, inWave, linesOf, shownAt, swappedAt, waveAt } from "../../domain/clock/board";
import { useWidth } from "../../ui/useWidth";

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

/** A phone has room for one column. */
const NARROW_PX = 600;

function columnsFor(lines: number, width: number): number {
  if (width > 0 && width < NARROW_PX) return 1;
  return lines <= 2 * TALL ? 2 : Math.min(MOST_COLUMNS, Math.max(2, Math.ceil(lines / TALLEST)));
}

/**
 * The board of a class: every station with who is there and who comes next. It fills its place: for fourteen people it
 * reads at 8 m on a hall screen, for two dozen at 5 m.
 */
export function ClassBoard({ board, at }: Props) {
  const wave = waveAt(board, at);
  const on = inWave(board, at);
  const swapped = swappedAt(board, at);
  const lines = linesOf(board, wave);
  const [frame, width] = useWidth<HTMLElement>();
  const columns = columnsFor(lines.length, width);
  const tall = Math.max(1, Math.ceil(lines.length / columns));
  const last = wave >= board.waves.length;
  const groups = Array.from({ length: columns }, (_, column) => lines.slice(column * tall, (column + 1) * tall));
  const called = calledNames(board.people.map((each) => each.name));
  const longest = Math.max(5, ...[...called.values()].map((name) => name.length));
  const across = (ROOM_VW / columns) * ((1 - STATION) / 2);
  const size = `min(${(0.86 * (ROOM_VH / (tall + 0.6))).toFixed(2)}vh, ${(across / (LETTER * longest)).toFixed(2)}vw)`;
  return (
    <section
      ref={frame}
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
                <Station
                  name={group[number - 1]?.station === line.station ? "" : shownAt(line.station, swapped)}
                  room={(0.9 * STATION * ROOM_VW) / columns}
                />
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

/** What stands on two lines is set smaller; a name longer than this is broken at its hyphen. */
const LONG = 9;

/** The name of a station in the lines it stands in: the role at the pads under the pads. */
function namedIn(shown: string): string[] {
  const role = /^(pads \d+) (hit|hold)$/.exec(shown);
  if (role) return [role[1] ?? "", `${role[2]}s`];
  return shown.length > LONG ? shown.split(/(?<=-)/) : [shown];
}

/** A station by its name, as large as its column has room for. */
function Station({ name, room }: { name: string; room: number }) {
  const lines = namedIn(name);
  const longest = Math.max(1, ...lines.map((line) => line.length));
  const most = lines.length > 1 ? 0.52 : 0.72;
  return (
    <td className="overflow-hidden font-semibold whitespace-nowrap opacity-90">
      <div style={{ fontSize: `min(${most}em, ${(room / (LETTER * longest)).toFixed(2)}vw)` }}>
        {lines.map((line) => (
          <div key={line}>{line}</div>
        ))}
      </div>
    </td>
  );
}
