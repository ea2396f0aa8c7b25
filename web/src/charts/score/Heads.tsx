import type { Schemas } from "../../api/client";
import { GROUND, SCORE_TOP } from "./geometry";
import type { Fold } from "./layout";

type Evaluation = Schemas["Evaluation"];

interface HeadProps {
  all: Fold[];
  names: string[];
  evaluation: Evaluation;
  open: number | null;
  axis: number;
  onOpen: (part: number) => void;
}

/** Names, bar lines and ground of the parts. */
export function Heads({ all, names, evaluation, open, axis, onOpen }: HeadProps) {
  return (
    <>
      {all.map((fold, index) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: the outline's rows do the same by keyboard
        <g key={fold.start_s} onClick={() => onOpen(index)} className="cursor-pointer">
          {index > 0 && <line x1={fold.x - 4} x2={fold.x - 4} y1={0} y2={axis} stroke="var(--rule-2)" />}
          <rect x={fold.x} y={0} width={fold.width} height={SCORE_TOP - 12} fill="transparent" />
          <PartName fold={fold} name={names[index] ?? ""} />
          {index === open && fold.width > 120 && (
            <text x={fold.x} y={32} className="fill-[var(--ink-2)] text-[12px]">
              {clip(evaluation.parts[index]?.text ?? "", fold.width, 6)}
            </text>
          )}
          <line x1={fold.x} x2={fold.x + fold.width} y1={GROUND} y2={GROUND} stroke="var(--ink)" strokeWidth={1.2} />
        </g>
      ))}
    </>
  );
}

/** The name of a part over its fold, where there is room for it. */
export function PartName({ fold, name }: { fold: Fold; name: string }) {
  if (fold.width <= 46) return null;
  return (
    <text x={fold.x} y={16} className="fill-[var(--ink)] font-[family-name:var(--font-head)] text-[15px] font-bold">
      {clip(name, fold.width, 8.2)}
    </text>
  );
}

function clip(text: string, width: number, perLetter: number): string {
  const room = Math.floor(width / perLetter);
  return text.length <= room ? text : `${text.slice(0, Math.max(1, room - 1)).trimEnd()}…`;
}
