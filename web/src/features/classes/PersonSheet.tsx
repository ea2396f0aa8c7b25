import { useState } from "react";
import { SelectField } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { spoken } from "./Grid";
import {
  type Answer,
  type Asked,
  apart,
  type Kept,
  letGo,
  paired,
  partnerOf,
  put,
  stationsOf,
  swapped,
  withComer,
} from "./plan";

/** What is to be done with somebody: by key one thing, by a cell all of them. */
export type Way = "all" | "move" | "swap" | "late" | "pair";

interface Props {
  kept: Kept;
  answer: Answer;
  place: number;
  wave: number;
  way: Way;
  onWave: (wave: number) => void;
  onChange: (asked: Asked) => void;
  onClose: () => void;
}

/** Somebody of the class: put somewhere, swapped, absent, late, leaving early, with a partner. */
export function PersonSheet({ kept, answer, place, wave, way, onWave, onChange, onClose }: Props) {
  const { asked } = kept;
  const comer = asked.people[place];
  const [at, setAt] = useState(answer.rows[place]?.[wave - 1] ?? "");
  const [other, setOther] = useState("");
  if (!comer) return null;
  const { uid } = comer;
  const here = answer.rows[place]?.[wave - 1] ?? "away";
  const others = asked.people.flatMap((each, number) =>
    number === place ? [] : [{ id: String(number), name: each.name }],
  );
  const partner = partnerOf(asked, uid);
  const isPut = (asked.put ?? []).some((each) => each.uid === uid && each.wave === wave);
  const shows = (name: Way) => way === "all" || way === name;
  const waves = answer.waves.map((each) => ({ id: String(each.number), name: `Wave ${each.number}` }));
  const name = comer.name;
  return (
    <Sheet label={`${name}, wave ${wave}`} className="w-[min(520px,calc(100vw-16px))]" onClose={onClose}>
      <div className="flex items-baseline justify-between gap-4">
        <h2>{name}</h2>
        <button type="button" className="link min-h-[44px]" onClick={onClose}>
          Close
        </button>
      </div>
      <p className="quiet pb-2">
        Wave {wave}: {spoken(here)}
        {isPut && ", put there"}. The rest is solved around what you change.
      </p>
      <div className="grid gap-3">
        {(shows("move") || shows("swap")) && (
          <SelectField label="Wave" value={String(wave)} options={waves} onChange={(id) => onWave(Number(id))} />
        )}
        {shows("move") && here !== "away" && (
          <form
            className="rule-t flex flex-wrap items-end gap-3 pt-3"
            onSubmit={(event) => {
              event.preventDefault();
              if (at) onChange(put(asked, uid, wave, at));
            }}
          >
            <div className="min-w-[200px] flex-1">
              <SelectField
                label="Put at"
                value={at}
                options={stationsOf(answer).map((each) => ({ id: each, name: spoken(each) }))}
                onChange={setAt}
              />
            </div>
            <button type="submit" className="act main">
              Put there
            </button>
            {isPut && (
              <button type="button" className="act" onClick={() => onChange(letGo(asked, uid, wave))}>
                Let go
              </button>
            )}
          </form>
        )}
        {shows("swap") && here !== "away" && (
          <form
            className="rule-t flex flex-wrap items-end gap-3 pt-3"
            onSubmit={(event) => {
              event.preventDefault();
              if (other) onChange(swapped(asked, answer.rows, place, Number(other), wave));
            }}
          >
            <div className="min-w-[200px] flex-1">
              <SelectField
                label={`Swap in wave ${wave} with`}
                value={other}
                none="choose somebody"
                options={others.filter((each) => answer.rows[Number(each.id)]?.[wave - 1] !== "away")}
                onChange={setOther}
              />
            </div>
            <button type="submit" className="act main" disabled={!other}>
              Swap
            </button>
          </form>
        )}
        {shows("late") && (
          <div className="rule-t grid gap-3 pt-3 min-[480px]:grid-cols-2">
            <SelectField
              label="Comes to"
              value={String(comer.from_wave ?? 1)}
              options={waves}
              onChange={(id) => onChange(withComer(asked, uid, { from_wave: Number(id) > 1 ? Number(id) : null }))}
            />
            <SelectField
              label="Leaves after"
              value={String(comer.absent_after || answer.waves.length)}
              options={waves}
              onChange={(id) =>
                onChange(withComer(asked, uid, { absent_after: Number(id) < answer.waves.length ? Number(id) : null }))
              }
            />
          </div>
        )}
        {shows("pair") && (
          <div className="rule-t pt-3">
            <SelectField
              label="Stays together with"
              hint="They hold only for each other."
              value={partner ? String(asked.people.findIndex((each) => each.uid === partner)) : ""}
              none="nobody in particular"
              options={others}
              onChange={(id) => {
                const second = asked.people[Number(id)];
                onChange(id === "" || !second ? apart(asked, uid) : paired(asked, uid, second.uid));
              }}
            />
          </div>
        )}
        {way === "all" && (
          <p className="rule-t flex flex-wrap gap-2 pt-3">
            <button
              type="button"
              className="act"
              onClick={() => onChange(withComer(asked, uid, { absent_after: comer.absent_after === 0 ? null : 0 }))}
            >
              {comer.absent_after === 0 ? "There after all" : "Absent"}
            </button>
            <button
              type="button"
              className="act"
              onClick={() => onChange(withComer(asked, uid, { easy: !comer.easy }))}
            >
              {comer.easy ? "May go hard again" : "Easy work only"}
            </button>
          </p>
        )}
      </div>
    </Sheet>
  );
}
