import type { UseQueryResult } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { whole } from "../../domain/figures";
import { clock, readClock } from "../../domain/time";
import { Stepper } from "../../ui/Stepper";
import { Tally } from "../../ui/Tally";
import { Trains } from "./Proposals";
import { type Answer, type Asked, type Kept, ofSize } from "./plan";

interface Props {
  kept: Kept;
  answer: Answer;
  might: UseQueryResult<Schemas["WhatIfOut"][]>;
  busy: boolean;
  onChange: (asked: Asked) => void;
  onApply: (at: number) => void;
}

/** What is said of a class: how the gear is shared, what each gets, its set-up, its cautions, and what might change. */
export function Side({ kept, answer, might, busy, onChange, onApply }: Props) {
  const { asked } = kept;
  const there = answer.people.filter((each) => each.moving_s > 0);
  const set = (change: Partial<Asked>) => onChange({ ...asked, ...change, put: [] });
  return (
    <aside aria-label="What is said of it" className="bg-[var(--sheet)] p-4 text-[13px] leading-[17px]">
      <div className="flex items-center gap-3">
        <Tally strokes={answer.sharing.strokes} label={`${answer.sharing.strokes} of 5 for sharing the gear`} />
        <div>
          <h2>{answer.sharing.word}</h2>
          <p className="quiet">{answer.sharing.strokes} of 5 for sharing the gear</p>
        </div>
      </div>
      <p className="pt-2 text-[14px] leading-[20px]">{answer.sharing.sentence}</p>
      {there.length > 0 && (
        <dl className="grid grid-cols-2 gap-x-4 pt-2">
          <Told value={spread(there.map((each) => each.moving_s))} name="moving, each" />
          <Told value={spread(there.map((each) => each.idle_s))} name="idle, each (changes)" />
          <Told
            value={`${spread(there.map((each) => each.work_s))} : ${spread(there.map((each) => each.rest_s))}`}
            name="work : rest in the waves"
          />
          <Told value={between(there.map((each) => each.load))} name="load, RPE × minutes" />
          <Told value={between(there.map((each) => each.strikes))} name="strikes, each, about" />
          <Told value={between(there.map((each) => each.rpe))} name="expected effort of 10" />
        </dl>
      )}
      <div className="ink-t mt-3 pt-2">
        <Trains answer={answer} />
        {answer.short && (
          <p className="pt-2">
            <span className="seal">Short</span> {answer.short}{" "}
            {answer.cure ?? "No more gear or minutes within reach would keep it: another school, or fewer people."}
          </p>
        )}
      </div>
      <section aria-label="Set-up" className="ink-t mt-3 pt-2">
        <h3>Set-up</h3>
        <div className="flex flex-wrap gap-x-3 gap-y-2 pt-1">
          <Count
            label="People"
            value={asked.people.length}
            min={1}
            max={60}
            onChange={(to) => onChange(ofSize({ ...asked, put: [] }, to))}
          />
          <Count label="Bags" value={asked.bags ?? 0} min={0} max={30} onChange={(bags) => set({ bags })} />
          <Count
            label="Pad pairs"
            value={asked.pad_pairs ?? 0}
            min={0}
            max={30}
            onChange={(pad_pairs) => set({ pad_pairs })}
          />
          <Count label="Waves" value={answer.waves.length} min={1} max={40} onChange={(waves) => set({ waves })} />
          {asked.school !== "beat" && (
            <Count
              label="Rounds"
              value={asked.rounds ?? answer.rounds}
              min={1}
              max={60}
              onChange={(rounds) => set({ rounds, waves: null })}
            />
          )}
          <Stepper
            label="Change"
            value={answer.change_s}
            min={0}
            max={300}
            show={clock}
            read={readClock}
            step={() => 5}
            onChange={(change_s) => set({ change_s, waves: null })}
          />
        </div>
      </section>
      {answer.minded.length > 0 && (
        <section aria-label="Cautions" className="ink-t mt-3 pt-2">
          <h3>Cautions</h3>
          <ul>
            {answer.minded.map((each) => (
              <li key={`${each.name} ${each.text}`} className="flex gap-2 pt-1">
                <span className="seal h-fit">{each.seal}</span>
                <span>
                  <b>{each.name}:</b> {each.text}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section aria-label="If it changes" className="ink-t mt-3 pt-2 print:hidden">
        <h3>If it changes</h3>
        {might.error ? (
          <p role="alert">{might.error.message}</p>
        ) : !might.data ? (
          <p role="status" className="quiet">
            Solving ahead what might change …
          </p>
        ) : (
          <ol>
            {might.data.map((each, at) => (
              <li key={each.name} className="rule-t flex items-center justify-between gap-3 py-2">
                <span>
                  <b>{each.name}</b>
                  <span className="quiet block">{each.effect}</span>
                </span>
                {each.asked && (
                  <button
                    type="button"
                    className="act"
                    disabled={busy}
                    aria-label={`Apply: ${each.name}`}
                    onClick={() => onApply(at)}
                  >
                    <span>
                      <u>{at + 1}</u> Apply
                    </span>
                  </button>
                )}
              </li>
            ))}
          </ol>
        )}
      </section>
    </aside>
  );
}

function Told({ value, name }: { value: string; name: string }) {
  return (
    <div className="rule-t flex flex-col-reverse py-1">
      <dt className="quiet text-[12px]">{name}</dt>
      <dd className="figure">{value}</dd>
    </div>
  );
}

function Count({
  label,
  value,
  min,
  max,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
}) {
  const read = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : null);
  return (
    <Stepper
      label={label}
      value={value}
      min={min}
      max={max}
      show={String}
      read={read}
      step={() => 1}
      onChange={onChange}
    />
  );
}

function spread(seconds: number[]): string {
  const [low, high] = [Math.min(...seconds), Math.max(...seconds)];
  return low === high ? clock(low) : `${clock(low)} to ${clock(high)}`;
}

function between(values: number[]): string {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return Math.round(low) === Math.round(high) ? whole(low) : `${whole(low)} to ${whole(high)}`;
}
