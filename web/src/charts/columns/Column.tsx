import type { ReactNode } from "react";
import { inTen } from "../../domain/figures";
import { clock } from "../../domain/time";
import { Tally } from "../../ui/Tally";
import { SmallScore } from "../score/SmallScore";
import { change } from "./change";
import type { Drawn } from "./drawn";
import { type Compared, ROWS } from "./rows";
import { Stores } from "./Stores";

interface Props extends Drawn {
  /** What stands over it. */
  label: string;
  /** The lines, or whatever tells what is done. */
  text: ReactNode;
  /** What is said of it. */
  words: ReactNode;
  /** What its figures are held against. */
  against: Compared | null;
  /** The longest of all that stand side by side: one time axis for all. */
  longest: number;
  best?: boolean;
  /** What the column is called by those who hear it; its title, if nothing else. */
  region?: string;
  children?: ReactNode;
}

/** One of several sessions side by side on one time axis. */
export function Column(props: Props) {
  const { label, title, compared, blocks, strokes, grade, sureness, traces, text, words, against, longest, best } =
    props;
  const width = `${(100 * compared.total_s) / longest}%`;
  return (
    <section
      aria-label={props.region ?? title}
      className={`border-[var(--rule)] py-3 max-[899px]:border-b min-[900px]:row-span-9 min-[900px]:grid min-[900px]:grid-rows-subgrid min-[900px]:px-3 min-[900px]:not-first:border-l ${best ? "bg-[var(--sheet)]" : ""}`}
    >
      <p className="label-text">{label}</p>
      <div className="flex items-start justify-between gap-2">
        <h2>{title}</h2>
        <Tally strokes={strokes} label={`${strokes} of 5`} />
      </div>
      <p className="quiet text-[13px]">
        {grade}, {strokes} of 5{sureness != null && `; ${inTen(sureness)}`}
      </p>
      <div className="pb-1 text-[13px] leading-[17px] font-semibold">{text}</div>
      <div className="h-[86px]">
        <div className="h-full" style={{ width }}>
          <SmallScore blocks={blocks} label={`${title}, ${clock(compared.total_s)}, drawn small`} />
        </div>
      </div>
      <Stores traces={traces} width={width} />
      <div className="py-2 text-[13px] leading-[17px]">{words}</div>
      <Figures compared={compared} against={against} />
      <div className="flex flex-col gap-2 pt-2">{props.children}</div>
    </section>
  );
}

interface ColumnsProps {
  count: number;
  dim?: boolean;
  children: ReactNode;
}

/** Where columns stand: side by side, or under each other on a phone. */
export function Columns({ count, dim, children }: ColumnsProps) {
  return (
    <div
      className={`grid border-t border-[var(--ink)] ${dim ? "opacity-60" : ""} min-[900px]:grid-cols-[repeat(var(--columns),minmax(0,1fr))]`}
      style={{ "--columns": count } as React.CSSProperties}
    >
      {children}
    </div>
  );
}

function Figures({ compared, against }: { compared: Compared; against: Compared | null }) {
  return (
    <dl>
      {ROWS.map((row) => {
        const figure = row.figure(compared);
        const before = against ? row.figure(against) : undefined;
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
