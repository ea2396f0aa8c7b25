import type { ReactNode } from "react";
import { flushSync } from "react-dom";
import type { Schemas } from "../../api/client";
import type { Kept } from "../../domain/session/draft";
import type { Part } from "../../domain/session/tree";
import { clock } from "../../domain/time";
import { Grip, useGrip } from "./Grip";
import { PartEditor } from "./PartEditor";
import { Sortables } from "./Sortables";
import { Sums } from "./Sums";
import type { Typing } from "./useTyped";

interface Props {
  parts: Part[];
  evaluation: Schemas["Evaluation"] | undefined;
  /** What is known of each part. */
  summaries: (Schemas["PartSummary"] | undefined)[];
  /** What the sums of all stand from before, where what is here cannot be worked out. */
  before: string | null;
  tempos: Schemas["TempoOut"][];
  purposes: Schemas["Named"][];
  gloves: Schemas["Named"][];
  items: Schemas["Named"][];
  chosen: number | null;
  open: boolean;
  /** The rows picked together; null while single rows are worked on. */
  picked: ReadonlySet<number> | null;
  typed: Kept["typed"];
  typing: Typing;
  onTyped: (typed: Kept["typed"]) => void;
  onChoose: (part: number, open: boolean) => void;
  onPick: (part: number, range: boolean) => void;
  onChange: (index: number, part: Part) => void;
  onAhead: (index: number, part: Part) => void;
  onLay: () => void;
  onDouble: (index: number) => void;
  onRemove: (index: number) => void;
  onDrag: (from: number, to: number) => void;
}

const COLUMNS = "grid grid-cols-[48px_1fr_56px] min-[700px]:grid-cols-[48px_130px_1fr_56px_48px_48px] gap-x-3";
const rowId = (index: number) => `row-${index}`;

/** The outline: every part a row; the one in hand opens. It is the full text of the score. */
export function Outline(props: Props) {
  const { parts, evaluation, summaries, chosen, open, picked } = props;
  const ids = parts.map((_part, index) => rowId(index));
  return (
    <div>
      <div className={`${COLUMNS} label-text border-b border-[var(--rule)] px-0 pb-1`} aria-hidden="true">
        <span>At</span>
        <span>Part</span>
        <span className="hidden min-[700px]:block">Pattern</span>
        <span className="hidden text-right min-[700px]:block">Strikes</span>
        <span className="text-right">Work</span>
        <span className="hidden text-right min-[700px]:block">Rest</span>
      </div>
      <Sortables ids={ids} onDrop={(id, onto) => props.onDrag(ids.indexOf(id), ids.indexOf(onto))}>
        {parts.map((part, index) => {
          const summary = summaries[index];
          const isOpen = open && chosen === index && !picked;
          const text = props.typed?.part === index ? props.typed.text : null;
          const isPicked = picked?.has(index) ?? false;
          return (
            <Place key={rowId(index)} id={rowId(index)} name={part.name || "No name"} open={isOpen}>
              {isOpen ? (
                <PartEditor
                  columns={COLUMNS}
                  part={part}
                  summary={summary}
                  tempos={props.tempos}
                  purposes={props.purposes}
                  gloves={props.gloves}
                  items={props.items}
                  typed={text}
                  typing={props.typing}
                  onTyped={(text) => props.onTyped(text === null ? null : { part: index, text })}
                  onChange={(next) => props.onChange(index, next)}
                  onAhead={(next) => props.onAhead(index, next)}
                  onLay={props.onLay}
                  onDouble={() => props.onDouble(index)}
                  onRemove={() => props.onRemove(index)}
                  onClose={() => {
                    // After whatever is being drawn just now, and at once: the row has to stand there to be focused.
                    setTimeout(() => {
                      flushSync(() => props.onChoose(index, false));
                      document.querySelector<HTMLElement>(`[data-row="${index}"]`)?.focus();
                    });
                  }}
                />
              ) : (
                <button
                  type="button"
                  data-row={index}
                  {...(picked ? { role: "checkbox", "aria-checked": isPicked } : {})}
                  tabIndex={(chosen ?? 0) === index ? 0 : -1}
                  className={`${COLUMNS} w-full cursor-pointer items-baseline py-[6px] text-left hover:bg-[#E9E3D5] ${
                    isPicked || (chosen === index && !picked) ? "bg-[var(--sheet)]" : ""
                  }`}
                  onClick={(event) => {
                    if (picked || event.shiftKey) props.onPick(index, event.shiftKey);
                    else props.onChoose(index, true);
                  }}
                >
                  <span className="quiet">
                    {picked ? <Box on={isPicked} /> : summary ? clock(summary.start_s) : ""}
                  </span>
                  <span>
                    <b className="font-semibold">{part.name || "No name"}</b>
                    <Stated of={part} purposes={props.purposes} kit={summary?.kit ?? []} />
                  </span>
                  <span className="max-[699px]:order-last max-[699px]:col-span-3 max-[699px]:quiet">
                    {text ?? summary?.text ?? "…"}
                  </span>
                  <Sums summary={summary} />
                </button>
              )}
            </Place>
          );
        })}
      </Sortables>
      {evaluation && evaluation.parts.length > 0 && (
        <div
          className={`${COLUMNS} border-t border-[var(--ink)] pt-[6px] font-semibold ${props.before ? "stale" : ""}`}
        >
          <span />
          <span>Total {clock(evaluation.total_s)}</span>
          <span className="hidden min-[700px]:block" />
          <span className="hidden text-right min-[700px]:block">{Math.round(evaluation.volume.strikes)}</span>
          <span className="text-right">{clock(evaluation.work_s)}</span>
          <span className="hidden text-right min-[700px]:block">{clock(evaluation.rest_s)}</span>
        </div>
      )}
    </div>
  );
}

/** Where a row stands; its handle is in the margin. */
function Place({ id, name, open, children }: { id: string; name: string; open: boolean; children: ReactNode }) {
  const grip = useGrip(id);
  return (
    <div ref={grip.row} style={grip.style} className={`relative ${open ? "" : "border-b border-[var(--rule)]"}`}>
      <Grip {...grip.handle} label={`Move ${name}`} className="absolute top-0 -left-[24px] max-[899px]:-left-[18px]" />
      {children}
    </div>
  );
}

/** A drawn box: open, or struck through. */
function Box({ on }: { on: boolean }) {
  return (
    <svg aria-hidden="true" width="18" height="18" className="inline-block align-[-4px]">
      <rect
        x={1}
        y={1}
        width={16}
        height={16}
        fill={on ? "var(--ink)" : "none"}
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      {on && <path d="M4.500 9.500 l3 3 l6 -7" fill="none" stroke="var(--sheet)" strokeWidth={1.8} />}
    </svg>
  );
}

interface StatedProps {
  of: Part;
  purposes: Schemas["Named"][];
  kit: string[];
}

/** What the part is for, unless its name says it already, and what it is done in. */
function Stated({ of: part, purposes, kit }: StatedProps) {
  const name = purposes.find((purpose) => purpose.id === part.purpose)?.name;
  const said = [...(name && !part.name.toLowerCase().includes(name) ? [name] : []), ...kit];
  if (said.length === 0) return null;
  return <span className="quiet block text-[12px] leading-[14px]">{said.join(", ")}</span>;
}
