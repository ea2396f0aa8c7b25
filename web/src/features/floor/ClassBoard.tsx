import { type Board, inWave, linesOf, shownAt, swappedAt, waveAt } from "../../domain/clock/board";

interface Props {
  board: Board;
  at: number;
}

/** Lines of one column, so that names stay large. */
const TALL = 7;
const MOST_COLUMNS = 4;

/**
 * The board of a class: every station with who is there and who comes next. It fills its place: for fourteen people it
 * reads at 8 m on a hall screen, for two dozen at 5 m.
 */
export function ClassBoard({ board, at }: Props) {
  const wave = waveAt(board, at);
  const on = inWave(board, at);
  const swapped = swappedAt(board, at);
  const lines = linesOf(board, wave);
  const columns = Math.min(
    MOST_COLUMNS,
    Math.max(1, Math.ceil(lines.length / TALL) > 2 ? Math.ceil(lines.length / 14) : Math.ceil(lines.length / TALL)),
  );
  const tall = Math.ceil(lines.length / columns);
  const last = wave >= board.waves.length;
  const groups = Array.from({ length: columns }, (_, column) => lines.slice(column * tall, (column + 1) * tall));
  return (
    <section
      aria-label="The board"
      className="grid min-h-0 flex-1 gap-x-[2.5vw] overflow-hidden px-5 pt-2 wide:px-12"
      style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
    >
      {groups.map((group) => (
        <table
          key={group[0]?.station ?? "none"}
          className="h-full w-full table-fixed border-collapse text-left leading-none [container-type:size]"
          data-lines={tall}
        >
          <thead>
            <tr className="text-[max(16px,2.2vh)] opacity-80">
              <th scope="col" className="w-[26%] pb-1 font-semibold">
                Station
              </th>
              <th scope="col" className="w-[40%] pb-1 font-semibold">
                {on ? "Now" : wave ? "Was" : "Now"}
              </th>
              <th scope="col" className="w-[34%] pb-1 font-semibold">
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
                style={{ fontSize: `min(${(58 / (tall + 1)).toFixed(2)}vh, ${(28 / columns / 4.4).toFixed(2)}vw)` }}
              >
                <td className="truncate pr-2 font-semibold opacity-90">
                  {number && group[number - 1]?.station === line.station ? "" : shownAt(line.station, swapped)}
                </td>
                <td className={`truncate pr-2 font-bold ${on ? "" : "opacity-60"}`}>{line.now}</td>
                <td className={`truncate font-semibold ${on ? "opacity-80" : "font-bold"}`}>{last ? "" : line.next}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </section>
  );
}
