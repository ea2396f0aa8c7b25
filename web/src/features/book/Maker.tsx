import { useId } from "react";
import type { Schemas } from "../../api/client";
import { clock, readClock } from "../../domain/time";
import { Fault } from "../../ui/Fault";
import { Figure } from "../../ui/Figure";
import { Stepper } from "../../ui/Stepper";
import { LIMBS } from "../../ui/Strikes";
import { BLANK, type useMaker, type useToBench } from "./useMaker";

interface Props {
  maker: ReturnType<typeof useMaker>;
  toBench: ReturnType<typeof useToBench>;
  tempos: Schemas["TempoOut"][];
}

const MAKES: { word: string; kind: Schemas["MakeIn"]["kind"]; counts: number[] }[] = [
  { word: "Mirrored", kind: "mirrored", counts: [] },
  { word: "Pyramid", kind: "pyramid", counts: [] },
  { word: "Adding rounds", kind: "adding", counts: [] },
  { word: "Draw by lot", kind: "draw", counts: [] },
  { word: "Ladder 9-7-5-3", kind: "ladder", counts: [9, 7, 5, 3] },
  { word: "Contrast 3 and 5", kind: "alternating", counts: [3, 5, 1] },
  { word: "Alternate 3 and 3", kind: "alternating", counts: [3, 3, 1] },
  { word: "Medley of 15", kind: "medley", counts: [15] },
];

/** A line of the notation: counted and spelled out as it is typed, turned into rounds, and kept. */
export function Maker({ maker, toBench, tempos }: Props) {
  const id = useId();
  const { page, around, drill, refused, away, make, save } = maker;
  const whole = drill?.whole;
  const failure = make.error ?? save.error ?? toBench.error;
  return (
    <section aria-label="On the page" className="border border-[var(--rule-2)] bg-[var(--sheet)] p-4">
      <div className="grid gap-3 min-[900px]:grid-cols-[1fr_auto]">
        <label className="label-text">
          <span className="block pb-1">Combination, or several with | between</span>
          <input
            data-combination
            className="field text-[17px]"
            spellCheck={false}
            autoComplete="off"
            autoCapitalize="off"
            value={page.text}
            aria-invalid={refused !== null}
            aria-describedby={`${id}-said`}
            onChange={(event) => maker.edit({ text: event.target.value })}
          />
        </label>
        <div className="flex flex-wrap items-end gap-2">
          <label className="label-text">
            <span className="block pb-1">Stance</span>
            <select
              className="field h-[34px] cursor-pointer py-0"
              value={around.stance}
              onChange={(event) => maker.setAround({ stance: event.target.value as typeof around.stance })}
            >
              <option value="orthodox">orthodox</option>
              <option value="southpaw">southpaw</option>
            </select>
          </label>
          <label className="label-text">
            <span className="block pb-1">Effort</span>
            <select
              className="field h-[34px] cursor-pointer py-0"
              value={around.tempo}
              onChange={(event) => maker.setAround({ tempo: event.target.value as typeof around.tempo })}
            >
              {tempos
                .filter((tempo) => tempo.strikes_per_min > 0)
                .map((tempo) => (
                  <option key={tempo.id} value={tempo.id}>
                    {tempo.word}
                  </option>
                ))}
            </select>
          </label>
          <Stepper
            label="Interval"
            value={around.seconds}
            min={5}
            max={1800}
            show={clock}
            read={readClock}
            step={() => 15}
            onChange={(seconds) => maker.setAround({ seconds })}
          />
        </div>
      </div>
      <div id={`${id}-said`} role="status" className="min-h-[24px] pt-1 text-[13px]">
        {refused ? (
          <Fault refused={refused} text={page.text} onText={(text) => maker.edit({ text })} />
        ) : (
          <span className="text-[15px]">
            {away ? "No connection: it is read as soon as there is one." : said(drill)}
          </span>
        )}
      </div>
      {whole && (
        <>
          <dl className="grid grid-cols-3 gap-x-4 pt-2 min-[700px]:grid-cols-6 min-[1100px]:grid-cols-9">
            <Figure value={String(whole.strikes)} name="strikes a pass" />
            {LIMBS.filter((limb) => whole.limbs[limb]).map((limb) => (
              <Figure key={limb} value={String(whole.limbs[limb])} name={limb} />
            ))}
            {(["head", "body", "leg"] as const)
              .filter((height) => whole.heights[height])
              .map((height) => (
                <Figure key={height} value={String(whole.heights[height])} name={`to the ${height}`} />
              ))}
            {whole.defences > 0 && <Figure value={String(whole.defences)} name="defences" />}
            {whole.steps > 0 && <Figure value={String(whole.steps)} name="steps" />}
            <Figure value={`about ${whole.pass_s.toFixed(1)}`} name="seconds a pass" />
            <Figure value={`about ${whole.passes}`} name={`passes in ${clock(around.seconds)}`} />
            <Figure value={`about ${whole.passes * whole.strikes}`} name={`strikes in ${clock(around.seconds)}`} />
          </dl>
          <p className="pt-2 text-[13px]">
            Mirrored: <b>{whole.mirrored}</b>. Suits {whole.suits.join(", ") || "no bag"}.
          </p>
          {whole.against.map((each) => (
            <p key={each.bag + each.why} className="flex items-baseline gap-2 pt-1 text-[13px]">
              <span className="seal">Bag</span>
              <span>
                <b>Not on the {each.bag}</b>: {each.why}.
              </span>
            </p>
          ))}
        </>
      )}
      <fieldset className="mt-3" disabled={refused !== null || make.isPending}>
        <legend className="label-text pb-1">Make of it</legend>
        <div className="flex flex-wrap gap-2">
          {MAKES.map((each) => (
            <button
              key={each.word}
              type="button"
              className="act"
              onClick={() => make.mutate({ kind: each.kind, counts: each.counts })}
            >
              {each.word}
            </button>
          ))}
        </div>
      </fieldset>
      <div className="grid gap-3 pt-3 min-[900px]:grid-cols-[1fr_1fr_1.4fr]">
        <Text label="Name" value={page.name} max={80} onText={(name) => maker.edit({ name })} />
        <Text label="Tags, with commas" value={page.tags} max={300} onText={(tags) => maker.edit({ tags })} />
        <Text label="Note" value={page.note} max={1000} onText={(note) => maker.edit({ note })} />
      </div>
      {failure && (
        <p role="alert" className="pt-2 text-[13px]">
          <span className="seal">Stopped</span> {failure.message}
        </p>
      )}
      <div className="flex flex-wrap gap-2 pt-3">
        <button
          type="button"
          className="act main"
          disabled={refused !== null || save.isPending || !page.text.trim()}
          onClick={() => save.mutate()}
        >
          {save.isPending ? "Keeping …" : page.id === null ? "Keep in the book" : "Save the changes"}
        </button>
        <button
          type="button"
          className="act"
          disabled={refused !== null || toBench.isPending || !page.text.trim()}
          onClick={() => toBench.mutate({ name: page.name || "Combination", text: page.text })}
        >
          Put on the Bench
        </button>
        {page.id !== null && (
          <button type="button" className="act" onClick={() => maker.edit(BLANK)}>
            New page
          </button>
        )}
        {save.isSuccess && <span className="tick self-center">✓ Kept</span>}
      </div>
    </section>
  );
}

function said(drill: Schemas["DrillOut"] | undefined): string {
  if (!drill) return "Reading …";
  const calls = drill.combinations.map((each) => each.calls.join(", "));
  const order = { turns: "In turn", adding: "Adding one each round", pyramid: "As a pyramid", draw: "Drawn by lot" };
  if (drill.order === "turns" && calls.length === 1) return calls[0] ?? "";
  return `${order[drill.order]}: ${calls.join("; ")}${drill.recall ? "; the last recalls all" : ""}`;
}

interface TextProps {
  label: string;
  value: string;
  max: number;
  onText: (text: string) => void;
}

function Text({ label, value, max, onText }: TextProps) {
  return (
    <label className="label-text">
      <span className="block pb-1">{label}</span>
      <input className="field" value={value} maxLength={max} onChange={(event) => onText(event.target.value)} />
    </label>
  );
}
