import { type ReactNode, useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import shared from "../../api/shared.json";
import { clockRange, type Figures, fadeOnset, failsIn, inTen, percentRange, range } from "../../domain/figures";
import { clock } from "../../domain/time";
import { Figure } from "../../ui/Figure";
import { Strikes } from "../../ui/Strikes";
import { Tally } from "../../ui/Tally";
import { WhoSays } from "../../ui/WhoSays";
import { Heat } from "./Heat";
import { LastLacticDay } from "./LastLacticDay";

interface Props {
  evaluation: Schemas["Evaluation"];
  targets: Schemas["TargetOut"][];
  onLight: (measure: string | null) => void;
  wbgt: number | null;
  onWbgt: (wbgt: number | null) => void;
  /** Whether it is about a person, whose week counts. */
  somebody: boolean;
  /** The ranges are those of the last edit but one; the next are on their way. */
  guessing?: boolean;
  /** The change that answers a caution, where there is one. */
  cureOf?: (rule: string) => Cure | undefined;
  /** The nudges and the claims, under the cautions. */
  children?: ReactNode;
}

export interface Cure {
  name: string;
  /** It is of what lay here before the last edit, and cannot be applied. */
  before?: boolean;
  apply: () => void;
}

/** The verdict: a sentence first, then the tally, then its reasons, figures and cautions. */
export function VerdictSheet({
  evaluation,
  targets,
  onLight,
  wbgt,
  onWbgt,
  somebody,
  guessing,
  cureOf,
  children,
}: Props) {
  const reading = evaluation.reading;
  if (!reading) {
    return (
      <section aria-label="Verdict" className="p-4">
        <h2>No work yet</h2>
        <p className="quiet">There is nothing to judge. Give a part an effort, such as 30 power.</p>
      </section>
    );
  }
  const { verdict } = reading;
  const figures: Figures = reading.figures;
  const fails = failsIn(reading.fails, reading.efforts.length, reading.exhausted_at_s ?? null);
  const name = (id: string) => targets.find((target) => target.id === id)?.name ?? id;
  return (
    <section aria-label="Verdict" className="px-4 py-4 min-[900px]:px-[18px]">
      <div className="flex gap-3">
        <Tally strokes={verdict.strokes} label={`${verdict.strokes} of 5`} />
        <div>
          <h2>{verdict.grade}</h2>
          <p className="quiet text-[13px]">
            <WhoSays id="strokes">{verdict.strokes} of 5</WhoSays> for {name(verdict.target)}
          </p>
          <p className="quiet min-h-[18px] text-[13px]">
            {verdict.sureness == null ? "How sure: …" : `4 or 5 for ${inTen(verdict.sureness)}`}
          </p>
        </div>
      </div>
      <Spoken text={`${verdict.grade} for ${name(verdict.target)}`} />
      <p className="pt-2">{verdict.sentence}</p>
      {/* Two lines, as the longest takes: its ranges come later, and move nothing. */}
      <p className="min-h-10 text-[13px] leading-5">
        <WhoSays id="fails">{fails}</WhoSays>
      </p>
      {verdict.trains_best !== verdict.target && (
        <p className="quiet text-[13px]">It fits {name(verdict.trains_best)} best.</p>
      )}
      <ul className="grid gap-1 pt-2">
        {verdict.reasons.map((reason) => (
          <li key={reason.measure}>
            <button
              type="button"
              className="grid min-h-[24px] w-full cursor-pointer text-left grid-cols-[52px_1fr] items-baseline gap-x-2 text-[13px] leading-[17px]"
              onMouseEnter={() => onLight(reason.measure)}
              onMouseLeave={() => onLight(null)}
              onFocus={() => onLight(reason.measure)}
              onBlur={() => onLight(null)}
              title={`Source: ${reason.source}`}
            >
              {reason.side === "met" ? (
                <span className="tick">✓ Met</span>
              ) : (
                <span className="seal text-center">{reason.side === "short" ? "Short" : "Over"}</span>
              )}
              <span>
                {reason.text}
                <span className="quiet hidden text-[12px] [button:focus_&]:block">Who says so: {reason.source}.</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      <Shares figures={figures} />
      <h3 className="label-text pt-3 pb-1">Figures, 80 % range</h3>
      <dl className={`grid grid-cols-2 gap-x-4 ${guessing ? "text-[var(--ink-2)]" : ""}`} aria-busy={guessing}>
        <Figure id="work_to_rest" value={ratio(evaluation)} name="work to rest" />
        <Figure id="lactate_peak_mmol" value={range(figures.lactate_peak_mmol, 0)} name="peak lactate, mmol/L" />
        <Figure id="vo2_90_min" value={clockRange(figures.vo2_90_min)} name="above 90 % of VO₂peak" />
        <Figure id="load" value={range(figures.load, 0)} name="load, RPE × minutes" />
        <Figure id="kcal" value={range(figures.kcal, -1)} name="kcal in all" />
        <Figure
          id="heart_rate_peak_bpm"
          value={figures.heart_rate_peak_bpm ? range(figures.heart_rate_peak_bpm, 0) : "by RPE"}
          name="peak heart rate, bpm"
        />
        <Figure id="strikes" value={range(figures.strikes, -1)} name="strikes expected" />
        <Figure
          id="fade_onset"
          value={fadeOnset(reading.fade_onset, reading.fails)}
          name="where the fade starts"
          words
        />
      </dl>
      <Strikes volume={evaluation.volume} week={reading.week} workSeconds={evaluation.work_s} somebody={somebody} />
      <Kit kit={evaluation.kit} />
      <More figures={figures} />
      <Cautions cautions={reading.cautions} cureOf={cureOf} />
      <div className="no-print">
        {children}
        <Heat wbgt={wbgt} onWbgt={onWbgt} />
      </div>
      <p className="quiet pt-3 text-[12px] leading-[16px]">
        Estimates from a model fitted to cycling and running; no study gives the cost of a strike.{" "}
        <Link className="underline underline-offset-2" to="/method">
          Who says so
        </Link>
        . Chest pain, dizziness, confusion or undue breathlessness: stop, and see a physician.
      </p>
    </section>
  );
}

/** Says the verdict aloud only when its word changes. */
function Spoken({ text }: { text: string }) {
  const said = useRef(text);
  const [now, setNow] = useState("");
  useEffect(() => {
    if (said.current === text) return;
    said.current = text;
    setNow(text);
  }, [text]);
  return (
    <p className="sr-only" aria-live="polite">
      {now}
    </p>
  );
}

function ratio(evaluation: Schemas["Evaluation"]): string {
  if (!evaluation.rest_s) return "no rest";
  const value = evaluation.work_s / evaluation.rest_s;
  const tidy = (number: number) => String(Math.round(number * 10) / 10);
  return value >= 1 ? `${tidy(value)} : 1` : `1 : ${tidy(1 / value)}`;
}

/** What to bring, and whether the pauses give the time to change it. */
function Kit({ kit }: { kit: Schemas["KitAnswer"] }) {
  if (kit.bring.length === 0 && kit.changes === 0) return null;
  const times = kit.changes === 1 ? "1 change" : `${kit.changes} changes`;
  const short = kit.short_s ? `, ${clock(kit.short_s)} more than the pauses give` : "";
  return (
    <section aria-label="Kit" className="mt-3 text-[13px] leading-[17px]">
      <h3 className="label-text pb-1">Kit</h3>
      {kit.bring.length > 0 && <p>To bring: {kit.bring.join(", ")}.</p>}
      {kit.changes > 0 && (
        <p>
          {times}, about {clock(kit.needs_s)}
          {short}.
        </p>
      )}
    </section>
  );
}

/** What is asked for less often, folded away. */
function More({ figures }: { figures: Figures }) {
  return (
    <details className="pt-1">
      <summary className="label-text cursor-pointer py-1">More figures</summary>
      <dl className="grid grid-cols-2 gap-x-4">
        <Figure id="rpe" value={range(figures.rpe, 0)} name="expected RPE" />
        <Figure id="kcal_met" value={range(figures.kcal_met, -1)} name="kcal by tables, bag to sparring" />
        <Figure id="o2_deficit_ml_kg" value={range(figures.o2_deficit_ml_kg, 0)} name="oxygen deficit, mL/kg" />
        <Figure
          id="lactic_deep_min"
          value={clockRange(figures.lactic_deep_min)}
          name={`lactic store ${shared.lactic_deep}`}
        />
        <Figure id="sprint_lowest" value={percentRange(figures.sprint_lowest)} name="sprint store at its lowest" />
        <Figure
          id="lactic_reserve_lowest"
          value={percentRange(figures.lactic_reserve_lowest)}
          name="lactic store at its lowest"
        />
        <Figure id="fade_mean" value={percentRange(figures.fade_mean)} name="fade over the efforts" />
        <Figure
          id="hr_80_90_min"
          value={figures.hr_80_90_min ? clockRange(figures.hr_80_90_min) : "by RPE"}
          name="at 80 to 90 % of maximum heart rate"
        />
      </dl>
    </details>
  );
}

const STORES = [
  { key: "aerobic_share", name: "Aerobic", hue: "var(--aerobic)", mark: "●" },
  { key: "alactic_share", name: "Sprint", hue: "var(--sprint)", mark: "▲" },
  { key: "lactic_share", name: "Lactic", hue: "var(--lactic)", mark: "◆" },
] as const;

function Shares({ figures }: { figures: Figures }) {
  return (
    <>
      <h3 className="label-text pt-3 pb-1">Energy in the efforts</h3>
      {STORES.map((store) => {
        const share = figures[store.key]?.value ?? 0;
        return (
          <div key={store.key} className="grid min-h-[24px] grid-cols-[76px_1fr] items-center text-[13px]">
            <span>
              <span aria-hidden="true" className="inline-block w-[18px]" style={{ color: store.hue }}>
                {store.mark}
              </span>
              {store.name}
            </span>
            <span className="flex items-center gap-2">
              <span className="h-[10px]" style={{ width: `${Math.round(share * 75)}%`, background: store.hue }} />
              <b>
                <WhoSays id={store.key}>{Math.round(100 * share)} %</WhoSays>
              </b>
            </span>
          </div>
        );
      })}
    </>
  );
}

const SEVERITY = { note: "Note", caution: "Caution", stop: "Stop" };

interface CautionsProps {
  cautions: Schemas["Caution"][];
  cureOf: Props["cureOf"];
}

function Cautions({ cautions, cureOf }: CautionsProps) {
  return (
    <div className="mt-3 ink-t pt-2">
      <h3>Cautions</h3>
      {cautions.length === 0 && (
        <p className="pt-1 text-[13px]">
          <span className="tick">✓ Clear</span> No rule of this tool speaks. Yours still do.
        </p>
      )}
      <ul className="grid gap-2 pt-1">
        {cautions.map((caution) => (
          <li
            key={caution.rule}
            className="grid grid-cols-[64px_1fr] items-baseline gap-x-2 text-[13px] leading-[17px]"
            title={`Source: ${caution.source}`}
          >
            <span className={`seal text-center ${caution.severity === "note" ? "light" : ""}`}>{caution.seal}</span>
            <span>
              <b>{SEVERITY[caution.severity]}.</b> {caution.text} <span className="quiet">{caution.cure}</span>
              <CureKey cure={cureOf?.(caution.rule)} />
              {caution.rule === "bout-cut-off" && <LastLacticDay />}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The change that answers a caution, one press away. */
function CureKey({ cure }: { cure: Cure | undefined }) {
  if (!cure) return null;
  return (
    <button
      type="button"
      className="act no-print mt-1 min-h-[30px] whitespace-normal"
      disabled={cure.before}
      onClick={cure.apply}
    >
      Cure: {cure.name}
    </button>
  );
}
