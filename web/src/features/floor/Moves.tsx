import { type Board, calledNames, inWave, linesOf, waveAt } from "../../domain/clock/board";

interface Props {
  board: Board;
  at: number;
  /** The server knows of the board as it is. */
  kept: boolean;
}

/** On the coach's clock: who is where in this wave; in a change, who goes where. */
export function Moves({ board, at, kept }: Props) {
  const wave = waveAt(board, at);
  const on = inWave(board, at);
  if (!on && wave >= board.waves.length) return null;
  const called = calledNames(board.people.map((each) => each.name));
  const groups = new Map<string, string[]>();
  for (const line of linesOf(board, wave)) {
    const name = on ? line.now : line.next;
    const kind = line.station.startsWith("bag") ? "bags" : line.station.startsWith("pads") ? "pads" : line.station;
    if (name) groups.set(kind, [...(groups.get(kind) ?? []), called.get(name) ?? name]);
  }
  return (
    <p
      data-testid="moves"
      className="truncate px-5 pt-1 text-[18px] leading-[1.2] font-semibold wide:px-12 wide:text-[3vh]"
    >
      {on ? `Wave ${wave}` : `To wave ${wave + 1}`}
      {[...groups].map(([kind, names]) => ` · ${kind} ${names.join(", ")}`).join("")}
      {!kept && " (not on other screens yet)"}
    </p>
  );
}
