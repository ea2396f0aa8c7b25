import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas } from "../../../api/client";
import { Column, Columns } from "../../../charts/columns/Column";
import { answered, type Drawn } from "../../../charts/columns/drawn";
import { Now } from "../../../charts/columns/Now";
import { Page } from "../../../charts/columns/Page";
import { Spoken } from "../../../charts/columns/Spoken";
import { nameAndSport } from "../../../domain/person";
import { Choice } from "../../../ui/Choice";
import { Tick } from "../../../ui/Tick";

type Scaled = Schemas["ScaledOut"];

interface Props {
  asked: Pick<Schemas["ScaleIn"], "document" | "person_id" | "target">;
  now: Drawn;
  person: string;
  people: Schemas["PersonOut"][];
  rules: Schemas["RulesOut"][];
  onTake: (scaled: Scaled) => void;
  onCopy: (scaled: Scaled) => void;
  onClose: () => void;
}

/** The session for somebody else, for a group, or under other rules, with its effect kept as near as it goes. */
export function Scale({ asked, now, person, people, rules, onTake, onCopy, onClose }: Props) {
  const [to, setTo] = useState<number[]>([]);
  const [ruleSet, setRuleSet] = useState("");
  const search = useMutation({
    mutationFn: (body: Pick<Schemas["ScaleIn"], "to" | "rule_set">) =>
      need(api.POST("/api/scale", { body: { ...asked, ...body } })),
  });
  const found = search.data?.columns ?? [];
  const notFor = search.data?.not_for ?? [];
  const longest = Math.max(now.compared.total_s, ...found.map((each) => each.total_s), 1);
  const select = (people: number[]) => {
    setTo(people);
    setRuleSet("");
    if (people.length) search.mutate({ to: people, rule_set: null });
    else search.reset();
  };
  const said = search.isPending
    ? "Searching for the same effect …"
    : search.error
      ? search.error.message
      : found.length === 0
        ? "Choose for whom, or under which rules. Of more than two people the weakest, the middle and the strongest are shown."
        : notFor.length > 0
          ? `Not for ${notFor.join(" Not for ")}`
          : null;
  return (
    <Page
      title="The same effect"
      under={
        <>
          as <b className="text-[var(--ink)]">{now.title}</b> has on {person}, by the model
        </>
      }
      said={said}
      onNumber={(index) => {
        const chosen = found[index];
        if (chosen) onTake(chosen);
      }}
      onClose={onClose}
      limits={
        <div className="flex flex-wrap items-end gap-x-6 gap-y-2 pt-3">
          <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
            <legend className="label-text pb-1">For</legend>
            {people.map((each) => (
              <Tick
                key={each.id}
                label={nameAndSport(each)}
                on={to.includes(each.id)}
                onChange={(on) => select(on ? [...to, each.id] : to.filter((id) => id !== each.id))}
              />
            ))}
            <Tick
              label="everybody"
              on={people.length > 0 && to.length === people.length}
              onChange={(on) => select(on ? people.map((each) => each.id) : [])}
            />
          </fieldset>
          <Choice
            label="Or under the rules of"
            value={ruleSet}
            none="no other rules"
            options={rules.map((each) => ({ id: each.id, name: `${each.name}: ${each.text}` }))}
            onChange={(id) => {
              setRuleSet(id);
              setTo([]);
              if (id) search.mutate({ to: [], rule_set: id as Schemas["ScaleIn"]["rule_set"] });
              else search.reset();
            }}
          />
        </div>
      }
    >
      <Columns count={found.length + 1} dim={search.isPending}>
        <Now now={now} longest={longest} />
        {found.map((each, index) => (
          <Column
            key={`${each.role} ${each.name}`}
            label={each.role ? `The ${each.role}` : each.person_id === asked.person_id ? "Converted" : "Scaled"}
            {...answered(each.name, each)}
            text={each.text}
            words={<Told scaled={each} />}
            against={now.compared}
            longest={longest}
            best={index === 0}
          >
            <button type="button" className="act main self-start" onClick={() => onTake(each)}>
              <kbd className="rounded-[2px] border border-current px-[6px] text-[12px]">{index + 1}</kbd> Put on the
              bench
            </button>
            <button type="button" className="act self-start" onClick={() => onCopy(each)}>
              Keep as a session of its own
            </button>
          </Column>
        ))}
      </Columns>
    </Page>
  );
}

/** What was changed, and which figures of the effect are kept. */
function Told({ scaled }: { scaled: Scaled }) {
  const lost = scaled.effect.filter((each) => !each.kept);
  return (
    <>
      <p>
        {scaled.steps.length ? `Changed: ${counted(scaled.steps).join(", then ")}.` : "It fits as it is."}{" "}
        {scaled.same ? <span className="tick">✓ Effect kept</span> : <span className="seal">Apart</span>}
      </p>
      {lost.length > 0 && (
        <p className="quiet pt-1">
          Apart: {lost.map((each) => `${each.name} ${each.before}, here ${each.after}`).join("; ")}.
        </p>
      )}
      <Spoken cautions={scaled.cautions} />
    </>
  );
}

/** The same change made several times in a row is told once. */
export function counted(steps: string[]): string[] {
  const told: { step: string; times: number }[] = [];
  for (const step of steps) {
    const last = told[told.length - 1];
    if (last?.step === step) last.times += 1;
    else told.push({ step, times: 1 });
  }
  return told.map(({ step, times }) => (times > 1 ? `${step} (${times} times)` : step));
}
