import type { Schemas } from "../../api/client";

type Row = Schemas["FitRow"];

/** Tolerances shown to each side; a mark beyond stands at the edge. */
const FURTHEST = 5;
/** From this many seconds on a protocol is called endless. */
const ENDLESS_S = 3600;
const GRID = "grid grid-cols-[minmax(0,1fr)_110px] min-[900px]:grid-cols-[minmax(0,1fr)_300px_76px_64px_76px] gap-x-4";

/** Where a residual stands on the axis, in percent. */
export const place = (residual: number) => 50 + (Math.max(-FURTHEST, Math.min(FURTHEST, residual)) / FURTHEST) * 50;

/** A figure as it is said. */
export function said(row: Row, value: number): string {
  if (row.ratio && value >= ENDLESS_S) return "no end";
  return Math.abs(value) >= 100 ? value.toFixed(0) : String(Number(value.toPrecision(3)));
}

function bySource(rows: Row[]): [string, Row[]][] {
  const groups = new Map<string, Row[]>();
  for (const row of rows) groups.set(row.source, [...(groups.get(row.source) ?? []), row]);
  return [...groups];
}

/** Every published figure against the model: how many tolerances off, each on one axis. */
export function FitPlot({ rows }: { rows: Row[] }) {
  return (
    <div className="mt-3">
      <p className="quiet pb-2 text-[13px]">
        The axis counts tolerances: the tinted band is what a good fit may be off, and a mark at the edge lies further
        out.
      </p>
      <div className={`${GRID} label-text border-b border-[var(--ink)] pb-1`} aria-hidden="true">
        <span>Figure</span>
        <span className="relative h-4">
          {[-FURTHEST, -1, 0, 1, FURTHEST].map((at) => (
            <span
              key={at}
              className={`absolute -translate-x-1/2 ${Math.abs(at) === 1 ? "max-[899px]:hidden" : ""}`}
              style={{ left: `${place(at)}%` }}
            >
              {at > 0 ? `+${at}` : at}
            </span>
          ))}
        </span>
        <span className="hidden text-right min-[900px]:block">Published</span>
        <span className="hidden text-right min-[900px]:block">Model</span>
      </div>
      {bySource(rows).map(([source, group]) => (
        <section key={source} aria-label={source} className="border-b border-[var(--rule)] py-2">
          <h3 className="pb-1 text-[14px]">{source}</h3>
          <ul>
            {group.map((row) => (
              <Figure key={row.what} row={row} />
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function Figure({ row }: { row: Row }) {
  const verdict = row.within ? <span className="tick">✓ Met</span> : <span className="seal">Missed</span>;
  return (
    <li className={`${GRID} items-center py-[2px] text-[13px] leading-[17px]`}>
      <span>
        {row.what}
        {row.unit && <span className="quiet">, {row.unit}</span>}
        {row.note && <span className="quiet block text-[12px] leading-[15px]">{row.note}</span>}
      </span>
      <Mark row={row} />
      <span className="hidden text-right min-[900px]:block">{said(row, row.published)}</span>
      <b className="hidden text-right min-[900px]:block">{said(row, row.value)}</b>
      <span className="hidden min-[900px]:block">{verdict}</span>
      <span className="col-span-2 pb-2 min-[900px]:hidden">
        {verdict} published {said(row, row.published)}, model <b>{said(row, row.value)}</b>
      </span>
    </li>
  );
}

function Mark({ row }: { row: Row }) {
  const at = place(row.residual);
  const ink = row.within ? "var(--ink)" : "var(--vermilion)";
  return (
    <span className="relative block h-[18px]" role="img" aria-label={`${row.residual.toFixed(1)} tolerances off`}>
      <span
        className="absolute inset-y-0 bg-[var(--rule)] opacity-55"
        style={{ left: `${place(-1)}%`, width: `${place(1) - place(-1)}%` }}
      />
      <span className="absolute inset-y-0 w-px bg-[var(--rule-2)]" style={{ left: "50%" }} />
      <span
        className="absolute top-[8px] h-[1.4px]"
        style={{ left: `${Math.min(50, at)}%`, width: `${Math.abs(at - 50)}%`, background: ink }}
      />
      <svg
        className="absolute top-[4px] h-[10px] w-[10px] -translate-x-1/2"
        style={{ left: `${at}%` }}
        aria-hidden="true"
      >
        {row.within ? (
          <rect x={1} y={1} width={8} height={8} fill={ink} />
        ) : (
          <path d="M 0 10 h 10 l -5 -10 z" fill={ink} />
        )}
      </svg>
    </span>
  );
}
