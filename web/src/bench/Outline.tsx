import type { Schemas } from "../api/client";
import { clock } from "../parts/time";
import type { Kept } from "./draft";
import { PartEditor } from "./PartEditor";
import { Sums } from "./Sums";
import type { Part } from "./tree";
import type { Typing } from "./useTyped";

interface Props {
  parts: Part[];
  evaluation: Schemas["Evaluation"] | undefined;
  tempos: Schemas["TempoOut"][];
  purposes: Schemas["Named"][];
  chosen: number | null;
  open: boolean;
  typed: Kept["typed"];
  typing: Typing;
  onTyped: (typed: Kept["typed"]) => void;
  onChoose: (part: number, open: boolean) => void;
  onChange: (index: number, part: Part) => void;
  onLay: () => void;
  onDouble: (index: number) => void;
  onRemove: (index: number) => void;
}

const COLUMNS = "grid grid-cols-[48px_1fr_56px] min-[700px]:grid-cols-[48px_130px_1fr_56px_48px_48px] gap-x-3";

/** The outline: every part a row; the one in hand opens. It is the full text of the score. */
export function Outline(props: Props) {
  const { parts, evaluation, chosen, open } = props;
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
      {parts.map((part, index) => {
        const summary = evaluation?.parts[index];
        const isOpen = open && chosen === index;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: parts have no other name, and rows hold no state
          <div key={index} className={isOpen ? "" : "border-b border-[var(--rule)]"}>
            {isOpen ? (
              <PartEditor
                columns={COLUMNS}
                part={part}
                summary={summary}
                tempos={props.tempos}
                purposes={props.purposes}
                typed={props.typed?.part === index ? props.typed.text : null}
                typing={props.typing}
                onTyped={(text) => props.onTyped(text === null ? null : { part: index, text })}
                onChange={(next) => props.onChange(index, next)}
                onLay={props.onLay}
                onDouble={() => props.onDouble(index)}
                onRemove={() => props.onRemove(index)}
                onClose={() => props.onChoose(index, false)}
              />
            ) : (
              <button
                type="button"
                data-row={index}
                tabIndex={(chosen ?? 0) === index ? 0 : -1}
                className={`${COLUMNS} w-full cursor-pointer items-baseline py-[6px] text-left hover:bg-[#E9E3D5] ${
                  chosen === index ? "bg-[var(--sheet)]" : ""
                }`}
                onClick={() => props.onChoose(index, true)}
              >
                <span className="quiet">{summary ? clock(summary.start_s) : ""}</span>
                <span>
                  <b className="font-semibold">{part.name || "No name"}</b>
                  <Purpose of={part} purposes={props.purposes} />
                </span>
                <span className="max-[699px]:order-last max-[699px]:col-span-3 max-[699px]:quiet">
                  {summary?.text ?? "…"}
                </span>
                <Sums summary={summary} />
              </button>
            )}
          </div>
        );
      })}
      {evaluation && parts.length > 0 && (
        <div className={`${COLUMNS} border-t border-[var(--ink)] pt-[6px] font-semibold`}>
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

/** What the part is for, unless its name says it already. */
function Purpose({ of: part, purposes }: { of: Part; purposes: Schemas["Named"][] }) {
  const name = purposes.find((purpose) => purpose.id === part.purpose)?.name;
  if (!name || part.name.toLowerCase().includes(name)) return null;
  return <span className="quiet block text-[12px] leading-[14px]">{name}</span>;
}
