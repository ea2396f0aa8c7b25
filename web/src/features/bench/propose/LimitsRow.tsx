import type { Schemas } from "../../../api/client";
import { Choice } from "../../../ui/Choice";
import { Stepper } from "../../../ui/Stepper";
import { Tick } from "../../../ui/Tick";
import type { Limits } from "./useProposals";

interface Props {
  limits: Limits;
  vocabulary: Schemas["Vocabulary"];
  /** Null where there is no session whose main set could be taken the place of. */
  mainOnly: boolean | null;
  onLimits: (limits: Limits) => void;
  onMainOnly: (mainOnly: boolean) => void;
}

const LEVELS = [
  { id: "beginner", name: "beginner" },
  { id: "club", name: "club" },
  { id: "fighter", name: "fighter" },
];

/** What proposals must hold to. */
export function LimitsRow({ limits, vocabulary, mainOnly, onLimits, onMainOnly }: Props) {
  const set = (change: Partial<Limits>) => onLimits({ ...limits, ...change });
  const toggled = <T,>(list: T[], each: T, on: boolean) => (on ? [...list, each] : list.filter((one) => one !== each));
  return (
    <fieldset className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-3">
      <legend className="sr-only">Limits</legend>
      <Stepper
        label="Minutes"
        value={limits.minutes}
        min={4}
        max={120}
        show={String}
        read={(text) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : null)}
        step={() => 5}
        onChange={(minutes) => set({ minutes })}
      />
      <Choice
        label="Strikes land on"
        value={limits.modality}
        options={vocabulary.modalities.filter((modality) => modality.struck)}
        onChange={(modality) => set({ modality: modality as Limits["modality"] })}
      />
      <Stepper
        label="Most strikes, 0 for no ceiling"
        value={limits.most_strikes ?? 0}
        min={0}
        max={20_000}
        show={String}
        read={(text) => (/^\d{1,5}$/.test(text.trim()) ? Number(text) : null)}
        step={() => 100}
        onChange={(most) => set({ most_strikes: most || null })}
      />
      <Tick label="With kicks" on={limits.kicks} onChange={(kicks) => set({ kicks })} />
      {mainOnly !== null && <Tick label="Take the main set only" on={mainOnly} onChange={onMainOnly} />}
      <details className="basis-full">
        <summary className="label-text cursor-pointer py-1">More limits: kit, efforts, level, rules</summary>
        <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
          <Choice
            label="Ceilings of level"
            value={limits.level ?? ""}
            none="the person's own"
            options={LEVELS}
            onChange={(level) => set({ level: (level || null) as Limits["level"] })}
          />
          <Choice
            label="Rules"
            value={limits.rule_set ?? ""}
            none="the person's own"
            options={vocabulary.rules}
            onChange={(rules) => set({ rule_set: (rules || null) as Limits["rule_set"] })}
          />
          {vocabulary.kit.map((kit) => (
            <Tick
              key={kit.id}
              label={`${kit.name} at hand`}
              on={!limits.missing.some((each) => each === kit.id)}
              onChange={(on) => set({ missing: toggled(limits.missing, kit.id as Limits["missing"][number], !on) })}
            />
          ))}
          {vocabulary.tempos
            .filter((tempo) => tempo.avoidable)
            .map((tempo) => (
              <Tick
                key={tempo.id}
                label={`no ${tempo.word}`}
                on={limits.avoid.includes(tempo.id)}
                onChange={(on) => set({ avoid: toggled(limits.avoid, tempo.id, on) })}
              />
            ))}
        </div>
      </details>
    </fieldset>
  );
}
