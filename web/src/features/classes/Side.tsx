import type { UseQueryResult } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Tally } from "../../ui/Tally";
import { Trains } from "./Proposals";
import { type Answer, between, spread } from "./plan";

interface Props {
  answer: Answer;
  might: UseQueryResult<Schemas["WhatIfOut"][]>;
  busy: boolean;
  onApply: (at: number) => void;
}

/** What is said of a class: how the gear is shared, what each gets, its cautions, and what might change. */
export function Side({ answer, might, busy, onApply }: Props) {
  const there = answer.people.filter((each) => each.moving_s > 0);
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
