import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, need } from "../../api/client";
import { once } from "../../domain/once";
import { FileButton } from "../../ui/FileButton";
import { Sheet } from "../../ui/Sheet";
import { saveFile } from "../../ui/saveFile";
import { useChanged } from "./useRoster";

const LARGEST_BYTES = 500_000;
const EXAMPLE = `name,year of birth,mass,level,sport,sex,groups
Ada Quay,1996,62.5,club,"boxer, 63 kg",female,Tuesday/Beginners
Ben Moor,1988,81,beginner,,male,Tuesday
`;

/** The text of a file, whichever of the two usual alphabets it was saved in. */
async function textOf(file: File): Promise<string> {
  if (file.size > LARGEST_BYTES) {
    throw new Error(`${file.name} has ${Math.round(file.size / 1000)} kB; a list of people has 500 kB at most.`);
  }
  if (!file.size) throw new Error(`${file.name} is empty.`);
  const bytes = await file.arrayBuffer();
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

const people = (count: number) => (count === 1 ? "1 athlete" : `${count} athletes`);

/** People from a table of another program: shown row by row first, then taken whole or not at all. */
export function ImportPeople({ onClose }: { onClose: () => void }) {
  const changed = useChanged();
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const preview = useMutation({
    mutationFn: async (file: File) => {
      const text = await textOf(file);
      return { text, ...(await need(api.POST("/api/people/csv/preview", { body: { text, leave_out: [] } }))) };
    },
    onSuccess: () => {
      setLeft(new Set());
      take.reset();
    },
  });
  const take = useMutation({
    mutationFn: (body: { text: string; leave_out: number[] }) =>
      once(["import people", body], (headers) => need(api.POST("/api/people/csv", { body, headers }))),
    onSuccess: changed,
  });
  const found = preview.data;
  const rows = found?.rows ?? [];
  const wrong = rows.filter((row) => row.faults.length > 0 && !left.has(row.line)).length;
  const taken = rows.length - left.size;
  const error = preview.error ?? take.error;
  const leave = (line: number) =>
    setLeft((now) => (now.has(line) ? new Set([...now].filter((each) => each !== line)) : new Set([...now, line])));
  if (take.data) {
    return (
      <Sheet label="Import athletes" className="w-[420px] max-w-[94vw]" onClose={onClose}>
        <h2>{people(take.data.people)} came in</h2>
        <p className="pt-2">
          What the file did not say has a default that says it is one. Screening and limits are entered on each page.
        </p>
        <button type="button" className="act main mt-4" onClick={onClose}>
          To the roster
        </button>
      </Sheet>
    );
  }
  return (
    <Sheet label="Import athletes" className="w-[760px] max-w-[94vw]" onClose={onClose}>
      <h2>Import athletes</h2>
      <p className="quiet pt-1">
        A CSV file, saved by a spreadsheet. Its first line names the columns: name, year of birth, mass and level are
        needed; sport, sex, stance, rules, bout, VO₂max and groups are read too.
      </p>
      <p className="flex flex-wrap gap-2 pt-3">
        <FileButton
          label="File of athletes"
          accept=".csv,.tsv,.txt,text/csv"
          word={preview.isPending ? "Reading …" : found ? "Choose another file" : "Choose a file"}
          className={`act ${found ? "" : "main"}`}
          disabled={preview.isPending}
          onFile={(file) => preview.mutate(file)}
        />
        <button type="button" className="act" onClick={() => saveFile("athletes.csv", "text/csv", EXAMPLE)}>
          Save an example
        </button>
        <button type="button" className="act" onClick={onClose}>
          Cancel
        </button>
      </p>
      {error && (
        <p role="alert" className="pt-3">
          <span className="seal">Stopped</span> {error.message}
        </p>
      )}
      {found && (
        <>
          {found.unknown.length > 0 && (
            <p className="quiet pt-3">Not read, as they mean nothing here: {found.unknown.join(", ")}.</p>
          )}
          <ul aria-label="Rows of the file" className="mt-3 max-h-[46dvh] overflow-y-auto border-y border-[var(--ink)]">
            {rows.map((row) => (
              <li key={row.line} className="rule-t flex gap-3 px-1 py-[6px] first:border-t-0">
                <span className={`min-w-0 flex-1 ${left.has(row.line) ? "opacity-60" : ""}`}>
                  <b>{row.name || `Line ${row.line}`}</b> <span className="quiet">{row.told.join(", ")}</span>
                  {row.faults.map((fault) => (
                    <span key={fault} className="block text-[13px]">
                      <span className="seal">Line {row.line}</span> {fault}
                    </span>
                  ))}
                </span>
                <label className="flex cursor-pointer items-center gap-2 text-[13px]">
                  <input
                    type="checkbox"
                    checked={left.has(row.line)}
                    onChange={() => leave(row.line)}
                    aria-label={`Leave out: line ${row.line}, ${row.name}`}
                  />
                  Leave out
                </label>
              </li>
            ))}
          </ul>
          <p className="flex flex-wrap items-center gap-3 pt-3">
            <button
              type="button"
              className="act main"
              disabled={wrong > 0 || taken === 0 || take.isPending}
              onClick={() => take.mutate({ text: found.text, leave_out: [...left].toSorted((a, b) => a - b) })}
            >
              {take.isPending ? "Taking them in …" : `Take in ${people(taken)}`}
            </button>
            {wrong > 0 && (
              <span role="status">
                {wrong === 1 ? "One row is" : `${wrong} rows are`} to be mended in the file, or left out.{" "}
                <button
                  type="button"
                  className="link"
                  onClick={() => setLeft(new Set(rows.filter((row) => row.faults.length).map((row) => row.line)))}
                >
                  Leave out all of them
                </button>
              </span>
            )}
          </p>
        </>
      )}
    </Sheet>
  );
}
