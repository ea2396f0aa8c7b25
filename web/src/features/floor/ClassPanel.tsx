import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas, Unreachable } from "../../api/client";
import { people as peopleQuery } from "../../api/queries";
import { type Board, type BoardIn, boardIn, lateWithoutNetwork, nextWave, waveAt } from "../../domain/clock/board";
import { SelectField, TextField } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";

interface Props {
  board: Board;
  at: number;
  onBoard: (board: BoardIn, said: string) => void;
  onClose: () => void;
}

type Change = Omit<Schemas["BoardChangeIn"], "board" | "wave">;

/** While a class runs: who is where, somebody late, somebody who leaves, two who change places. */
export function ClassPanel({ board, at, onBoard, onClose }: Props) {
  const wave = nextWave(board, at);
  const over = wave > board.waves.length;
  const roster = useQuery(peopleQuery).data ?? [];
  const [name, setName] = useState("");
  const [one, setOne] = useState("");
  const [other, setOther] = useState("");
  const there = board.people.flatMap((each, place) =>
    each.row[wave - 1] && each.row[wave - 1] !== "away" ? [{ id: String(place), name: each.name }] : [],
  );
  const known = roster.find((each) => each.name.toLowerCase() === name.trim().toLowerCase());
  const change = useMutation({
    mutationFn: (told: Change) =>
      need(api.POST("/api/boards/change", { body: { board: boardIn(board), wave, ...told } })),
    // Nobody waits for a network in a hall: off line somebody late stays off the bag.
    retry: false,
    onSuccess: (told, asked) => {
      onBoard(told, saidOf(asked, board));
      setName("");
      setOne("");
      setOther("");
    },
    onError: (error, asked) => {
      if (!(error instanceof Unreachable) || !asked.late) return;
      onBoard(lateWithoutNetwork(board, asked.late.name, asked.late.person_id ?? null, wave), saidOf(asked, board));
      setName("");
    },
  });
  const away = change.error instanceof Unreachable && change.variables?.late === undefined;
  return (
    <Sheet
      label="The class"
      className="w-[min(760px,calc(100vw-16px))] font-[family-name:var(--font-body)]"
      onClose={onClose}
    >
      <div>
        <div className="flex items-baseline justify-between gap-4">
          <h2>The class, {waveAt(board, at) ? `wave ${waveAt(board, at)}` : "before the first wave"}</h2>
          <button type="button" className="link min-h-[44px]" onClick={onClose}>
            Close
          </button>
        </div>
        {over ? (
          <p>The last wave is on: nothing is left to change.</p>
        ) : (
          <>
            <p className="quiet pb-2">From wave {wave} on. What is done stays; the rest is solved around it.</p>
            <form
              className="rule-t flex flex-wrap items-end gap-3 pt-2"
              onSubmit={(event) => {
                event.preventDefault();
                if (name.trim())
                  change.mutate({ late: { name: known?.name ?? name.trim(), person_id: known?.id ?? null } });
              }}
            >
              <div className="min-w-[200px] flex-1">
                <TextField
                  label="Somebody late"
                  list="roster-names"
                  autoComplete="off"
                  maxLength={120}
                  hint={known ? "Of the roster: it is logged for them." : "A name of the roster, or any other."}
                  value={name}
                  onChange={(event) => setName(event.target.value)}
                />
                <datalist id="roster-names">
                  {roster
                    .filter((each) => !board.people.some((one) => one.person_id === each.id))
                    .map((each) => (
                      <option key={each.id} value={each.name} />
                    ))}
                </datalist>
              </div>
              <button type="submit" className="act main" disabled={!name.trim() || change.isPending}>
                {change.isPending ? "Solving …" : "Add"}
              </button>
            </form>
            <div className="rule-t mt-3 flex flex-wrap items-end gap-3 pt-2">
              <div className="min-w-[160px] flex-1">
                <SelectField label="Somebody" value={one} none="choose" options={there} onChange={setOne} />
              </div>
              <button
                type="button"
                className="act"
                disabled={!one || change.isPending}
                onClick={() => change.mutate({ leaves: Number(one) })}
              >
                Leaves
              </button>
              <div className="min-w-[160px] flex-1">
                <SelectField
                  label="Swaps with"
                  value={other}
                  none="choose"
                  options={there.filter((each) => each.id !== one)}
                  onChange={setOther}
                />
              </div>
              <button
                type="button"
                className="act"
                disabled={!one || !other || change.isPending}
                onClick={() => change.mutate({ swap: [Number(one), Number(other)] })}
              >
                Swap
              </button>
            </div>
          </>
        )}
        <div aria-live="polite">
          {away && (
            <p className="pt-2">
              <span className="seal">Off line</span> This needs the server. Nothing was changed.
            </p>
          )}
          {change.error && !(change.error instanceof Unreachable) && (
            <p role="alert" className="pt-2">
              <span className="seal">Not done</span> {change.error.message}
            </p>
          )}
        </div>
        <div className="max-h-[46dvh] overflow-auto pt-3">
          <table className="w-full text-left text-[14px]">
            <thead>
              <tr className="quiet text-[12px]">
                <th scope="col" className="font-semibold">
                  Who
                </th>
                {board.waves.map((each) => (
                  <th
                    key={each.number}
                    scope="col"
                    className={`px-1 font-semibold ${each.number === waveAt(board, at) ? "border-b-2 border-current" : ""}`}
                  >
                    {each.number}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {board.people.map((each) => (
                <tr key={each.name} className="rule-t">
                  <th scope="row" className="py-1 pr-2 font-semibold whitespace-nowrap">
                    {each.name}
                  </th>
                  {each.row.map((station, number) => (
                    <td key={board.waves[number]?.number ?? number} className="px-1 whitespace-nowrap">
                      {station === "away" ? "–" : station}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
    </Sheet>
  );
}

/** What happened, in words for the journal. */
function saidOf(told: Change, board: Board): string {
  const name = (place: number | null | undefined) => board.people[place ?? -1]?.name ?? "somebody";
  if (told.late) return `${told.late.name} came late`;
  if (told.leaves != null) return `${name(told.leaves)} left`;
  return `${name(told.swap?.[0])} and ${name(told.swap?.[1])} changed places`;
}
