import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { campNudges } from "../../api/queries";
import type { Camp, Told } from "./plan";

type Rule = Schemas["RuleAnswer"];

interface Props {
  camp: Camp;
  /** What is drawn is not judged yet. */
  waiting: boolean;
  onApply: (placed: Told[]) => void;
}

/** What the plan breaks, what it holds to, and small changes that would mend it. */
export function Rules({ camp, waiting, onApply }: Props) {
  const broken = camp.rules.filter((rule) => rule.breaches.length);
  const held = camp.rules.filter((rule) => !rule.breaches.length);
  const ahead = broken.some((rule) => rule.breaches.some((breach) => !breach.over));
  return (
    <div
      className={`ink-t mt-5 grid gap-x-8 gap-y-5 pt-3 min-[900px]:grid-cols-3 ${waiting ? "opacity-60" : ""}`}
      aria-busy={waiting}
    >
      <section aria-label="Cautions" aria-live="polite">
        <h2>Cautions</h2>
        {broken.length === 0 && <p className="rule-t mt-1 pt-2">Nothing speaks against this plan.</p>}
        <ul>
          {broken.map((rule) => (
            <Broken key={rule.id} rule={rule} />
          ))}
        </ul>
      </section>
      <section aria-label="Held to">
        <h2>Held to</h2>
        <Held rules={held.slice(0, MOST_HELD)} />
        {held.length > MOST_HELD && (
          <details className="rule-t print:hidden">
            <summary className="cursor-pointer py-2 text-[13px] font-semibold">
              And {held.length - MOST_HELD} more, each with its source
            </summary>
            <Held rules={held.slice(MOST_HELD)} />
          </details>
        )}
      </section>
      <Nudges camp={camp} broken={ahead} waiting={waiting} onApply={onApply} />
    </div>
  );
}

const MOST_TOLD = 3;
const MOST_HELD = 6;

function Held({ rules }: { rules: Rule[] }) {
  return (
    <ul>
      {rules.map((rule) => (
        <li key={rule.id} className="rule-t grid grid-cols-[64px_1fr] gap-2 py-[6px] text-[13px] leading-[17px]">
          <span className="tick">✓ Clear</span>
          <span>
            {rule.sentence}
            <span className="quiet block text-[12px]">{rule.source}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}

function Broken({ rule }: { rule: Rule }) {
  const more = rule.breaches.length - MOST_TOLD;
  return (
    <li className="rule-t grid grid-cols-[72px_1fr] gap-2 py-[6px] text-[13px] leading-[17px]">
      <span>
        <span className={`seal ${rule.hard && !rule.softened ? "" : "light"}`}>{rule.seal}</span>
      </span>
      <span>
        {rule.breaches.slice(0, MOST_TOLD).map((breach) => (
          <span key={breach.text} className="block">
            {breach.text}
            {breach.over && " It is past."}
          </span>
        ))}
        {more > 0 && <span className="quiet block">And {more} more.</span>}
        {rule.softened && <span className="quiet block">You gave way on it.</span>}
        <span className="quiet block text-[12px]">{rule.source}</span>
      </span>
    </li>
  );
}

function Nudges({ camp, broken, waiting, onApply }: Props & { broken: boolean }) {
  const query = useQuery({ ...campNudges(camp.id), enabled: broken && !waiting });
  const found = broken ? query.data : [];
  return (
    <section aria-label="Nudges" className="print:hidden">
      <h2>Nudges</h2>
      {!found ? (
        <p role="status" className="rule-t quiet mt-1 pt-2">
          {query.error ? query.error.message : "Looking for small changes …"}
        </p>
      ) : found.length === 0 ? (
        <p className="rule-t mt-1 pt-2">{broken ? "No one change mends it. Solve the rest." : "None is needed."}</p>
      ) : (
        <ul>
          {found.map((nudge) => (
            <li key={nudge.name} className="rule-t flex items-center justify-between gap-3 py-[6px]">
              <span className="text-[13px] leading-[17px]">
                <b className="block">{nudge.name}</b>
                <span className="quiet">{nudge.effect}</span>
              </span>
              <button type="button" className="act" disabled={waiting} onClick={() => onApply(nudge.placed)}>
                Apply
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="pt-4">
        {camp.notes.map((note) => (
          <p key={note} className="quiet pt-1 text-[12px] leading-4">
            {note}
          </p>
        ))}
      </div>
    </section>
  );
}
