import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { Stepper } from "../parts/Stepper";
import { Tally } from "../parts/Tally";
import { clock } from "../parts/time";
import { SmallScore } from "../score/SmallScore";
import { change } from "./change";
import { type Compared, ROWS } from "./rows";
import type { Limits } from "./useProposals";

type Proposal = Schemas["ProposalOut"];

interface Props {
  proposals: Proposal[];
  /** What is on the bench now, if anything has been worked out. */
  now: {
    title: string;
    compared: Compared;
    blocks: Schemas["Block"][];
    strokes: number;
    traces: Schemas["Traces"];
  } | null;
  purpose: string;
  person: string;
  limits: Limits;
  means: Schemas["Named"][];
  searching: boolean;
  said: string | null;
  onLimits: (limits: Limits) => void;
  onTake: (proposal: Proposal, mainOnly: boolean) => void;
  onClose: () => void;
}

const NUMBERS = ["None", "One way", "Two ways", "Three ways", "Four ways", "Five ways"];

/** Protocols of different schools side by side on one time axis, with what each changes from what is on the bench. */
export function Proposals(props: Props) {
  const { proposals, now, purpose, person, limits, searching, said, onTake, onClose } = props;
  const [mainOnly, setMainOnly] = useState(false);
  const latest = useRef({ proposals, mainOnly, onTake, onClose });
  latest.current = { proposals, mainOnly, onTake, onClose };
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    head.current?.focus({ preventScroll: true });
    window.scrollTo(0, 0);
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if ((event.target as HTMLElement).closest("input, select, textarea") && event.key !== "Escape") return;
      const chosen = latest.current.proposals[Number(event.key) - 1];
      if (event.key === "Escape") latest.current.onClose();
      else if (chosen) latest.current.onTake(chosen, latest.current.mainOnly);
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener("keydown", onKey, { capture: true });
    return () => window.removeEventListener("keydown", onKey, { capture: true });
  }, []);
  const longest = Math.max(now?.compared.total_s ?? 0, ...proposals.map((proposal) => proposal.total_s), 1);
  const width = (seconds: number) => `${(100 * seconds) / longest}%`;
  return (
    <main className="px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h1 ref={head} tabIndex={-1} className="outline-none">
            {NUMBERS[proposals.length] ?? `${proposals.length} ways`} to {purpose}
          </h1>
          <p className="quiet">
            for <b className="text-[var(--ink)]">{person}</b>, up to {limits.minutes}:00, each of another school, and
            simulated
          </p>
        </div>
        <button type="button" className="act" onClick={onClose}>
          Back to the bench
        </button>
      </header>
      <LimitsRow {...props} mainOnly={mainOnly} onMainOnly={setMainOnly} />
      <p role="status" className="min-h-[22px] text-[13px]">
        {searching ? "Searching the schools …" : said}
      </p>
      <div
        className={`grid gap-x-4 border-t border-[var(--ink)] ${searching ? "opacity-60" : ""} min-[900px]:grid-cols-[repeat(var(--columns),minmax(0,1fr))]`}
        style={{ "--columns": proposals.length + (now ? 1 : 0) } as React.CSSProperties}
      >
        {now && (
          <section
            aria-label="On the bench now"
            className="border-[var(--rule)] py-3 max-[899px]:border-b min-[900px]:row-span-10 min-[900px]:grid min-[900px]:grid-rows-subgrid"
          >
            <p className="label-text">On the bench now</p>
            <div className="flex items-start justify-between gap-2">
              <h2>{now.title}</h2>
              <Tally strokes={now.strokes} label={`${now.strokes} of 5`} />
            </div>
            <p className="quiet text-[13px]">{now.strokes} of 5</p>
            <span />
            <div className="h-[86px]">
              <div className="h-full" style={{ width: width(now.compared.total_s) }}>
                <SmallScore blocks={now.blocks} label="What is on the bench now, drawn small" />
              </div>
            </div>
            <Stores traces={now.traces} width={width(now.compared.total_s)} />
            <p className="quiet pt-2 text-[13px]">Undo brings it back, whatever is taken.</p>
            <Figures compared={now.compared} now={null} />
            <span />
            <span />
          </section>
        )}
        {proposals.map((proposal, index) => (
          <section
            key={proposal.name}
            aria-label={proposal.name}
            className={`py-3 min-[900px]:row-span-10 min-[900px]:grid min-[900px]:grid-rows-subgrid max-[899px]:border-b max-[899px]:border-[var(--rule)] min-[900px]:border-l min-[900px]:border-[var(--rule)] min-[900px]:pl-4 ${index === 0 ? "bg-[var(--sheet)]" : ""}`}
          >
            <p className="label-text">
              {SCHOOLS[proposal.school] ?? proposal.school}
              {index === 0 ? ". Best fit" : ""}
            </p>
            <div className="flex items-start justify-between gap-2">
              <h2>{proposal.name}</h2>
              <Tally strokes={proposal.strokes} label={`${proposal.strokes} of 5`} />
            </div>
            <p className="quiet text-[13px]">
              {proposal.grade}, {proposal.strokes} of 5
            </p>
            <p className="pb-1 text-[13px] leading-[17px] font-semibold">{proposal.text}</p>
            <div className="h-[86px]">
              <div className="h-full" style={{ width: width(proposal.total_s) }}>
                <SmallScore
                  blocks={proposal.blocks}
                  label={`${proposal.name}, ${clock(proposal.total_s)}, drawn small`}
                />
              </div>
            </div>
            <Stores traces={proposal.traces} width={width(proposal.total_s)} />
            <p className="py-2 text-[13px] leading-[17px]">
              {proposal.why} {proposal.tradeoff} <span className="quiet">{proposal.sentence}</span>
            </p>
            <Figures compared={proposal} now={now?.compared ?? null} />
            <p className="quiet pt-1 text-[12px]">Source: {proposal.source}</p>
            <button
              type="button"
              className={`act mt-2 justify-self-start ${index === 0 ? "main" : ""}`}
              disabled={searching}
              onClick={() => onTake(proposal, mainOnly)}
            >
              <kbd className="rounded-[2px] border border-current px-[6px] text-[12px]">{index + 1}</kbd> Put on the
              bench
            </button>
          </section>
        ))}
      </div>
    </main>
  );
}

const SCHOOLS: Record<string, string> = {
  lab: "From the lab",
  track: "From the track",
  ring: "From the ring",
  gym: "From the gym",
  hall: "From the hall",
};

interface LimitsProps extends Props {
  mainOnly: boolean;
  onMainOnly: (mainOnly: boolean) => void;
}

function LimitsRow({ limits, means, now, mainOnly, onLimits, onMainOnly }: LimitsProps) {
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
        onChange={(minutes) => onLimits({ ...limits, minutes })}
      />
      <label className="label-text">
        <span className="block pb-1">Strikes land on</span>
        <select
          className="field h-[30px] min-h-0 cursor-pointer py-0 max-[899px]:h-[44px]"
          value={limits.means}
          onChange={(event) => onLimits({ ...limits, means: event.target.value as Limits["means"] })}
        >
          {means.map((each) => (
            <option key={each.id} value={each.id}>
              {each.name}
            </option>
          ))}
        </select>
      </label>
      <Stepper
        label="Most strikes, 0 for no ceiling"
        value={limits.most_strikes ?? 0}
        min={0}
        max={20_000}
        show={String}
        read={(text) => (/^\d{1,5}$/.test(text.trim()) ? Number(text) : null)}
        step={() => 100}
        onChange={(most) => onLimits({ ...limits, most_strikes: most || null })}
      />
      <Tick label="With kicks" on={limits.kicks} onChange={(kicks) => onLimits({ ...limits, kicks })} />
      {now && <Tick label="Take the main set only" on={mainOnly} onChange={onMainOnly} />}
    </fieldset>
  );
}

function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex min-h-[30px] cursor-pointer items-center gap-2 max-[899px]:min-h-[44px]">
      <input
        type="checkbox"
        className="h-[18px] w-[18px] accent-[var(--ink)]"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}

/** The lactic and the sprint store in small. */
function Stores({ traces, width }: { traces: Schemas["Traces"]; width: string }) {
  const stores = [
    { name: "Lactic store", values: traces.lactic_left, hue: "var(--lactic)" },
    { name: "Sprint store", values: traces.sprint_left, hue: "var(--sprint)" },
  ];
  const end = traces.seconds.at(-1) ?? 1;
  return (
    <div>
      {stores.map((store) => (
        <div key={store.name} className="pt-2">
          <p className="text-[12px] leading-[14px]">{store.name}</p>
          <div className="h-[36px] border-b border-[var(--rule-2)]" style={{ width }}>
            <svg
              className="h-full w-full"
              viewBox={`0 0 ${end} 1`}
              preserveAspectRatio="none"
              role="img"
              aria-label={`${store.name}: down to ${Math.round(100 * Math.min(...store.values))} percent`}
            >
              <polyline
                fill="none"
                stroke={store.hue}
                strokeWidth={1.5}
                vectorEffect="non-scaling-stroke"
                points={store.values.map((value, index) => `${traces.seconds[index]},${1 - value}`).join(" ")}
              />
            </svg>
          </div>
        </div>
      ))}
    </div>
  );
}

function Figures({ compared, now }: { compared: Compared; now: Compared | null }) {
  return (
    <dl>
      {ROWS.map((row) => {
        const figure = row.figure(compared);
        const before = now ? row.figure(now) : undefined;
        if (!figure) return null;
        const moved = before && change(before, figure);
        return (
          <div
            key={row.name}
            className="rule-t grid grid-cols-[1fr_auto] gap-x-2 py-[4px] text-[13px] leading-[17px] min-[900px]:min-h-[46px] min-[1200px]:grid-cols-1 min-[1500px]:grid-cols-[1fr_auto]"
          >
            <dt className="quiet">{row.name}</dt>
            <dd>
              <b>{row.show(figure)}</b>{" "}
              {moved && (
                <span className={moved.way === "none" ? "quiet" : ""}>
                  {moved.way === "none"
                    ? "within error"
                    : `${moved.way === "up" ? "▲" : "▼"} ${row.by(Math.abs(moved.by))} ${moved.way === "up" ? "more" : "less"}`}
                </span>
              )}
            </dd>
          </div>
        );
      })}
    </dl>
  );
}
