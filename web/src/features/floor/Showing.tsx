import type { Piece } from "../../domain/clock/crew";

const HEIGHTS = ["head", "body", "leg"] as const;
const PITCH = 150;
const TOP = 40;
const BETWEEN = 62;

/** How a strike is drawn from the left, ending at 0, 0. From the right it is turned round. */
const SHAPES: Record<string, string> = {
  straight: "M-66 22 L-60 34 L-8 6 L-8 -3 Z",
  round: "M-40 44 L-54 30 C-84 2 -60 -12 -8 -6 L-8 5 C-50 0 -62 12 -30 34 Z",
  upward: "M-34 62 L-22 70 C-8 50 -2 30 3 10 L-6 8 C-12 30 -20 46 -34 62 Z",
  kick: "M-22 62 L-34 70 C-96 30 -80 -18 -8 -14 L-8 14 C-58 8 -70 22 -22 62 Z",
  knee: "M-20 58 L20 58 L0 12 Z",
  step: "M-40 60 L-10 60 L-10 68 L-40 68 Z",
};

interface Props {
  piece: Piece;
  /** Which strike is being called; -1 before the first. */
  now: number;
}

/** What is shown, drawn large: order left to right, each stroke from the side that strikes, at its height. */
export function Showing({ piece, now }: Props) {
  const strokes = piece.strokes ?? [];
  const width = 70 + PITCH * strokes.length;
  return (
    <svg
      viewBox={`0 0 ${width} 256`}
      className="block max-h-[44vh] w-full"
      role="img"
      aria-label={`Shown: ${strokes.map((each) => each.word).join(", ")}`}
    >
      {HEIGHTS.map((height, row) => (
        <g key={height}>
          <line
            x1={60}
            x2={width}
            y1={TOP + row * BETWEEN}
            y2={TOP + row * BETWEEN}
            stroke="currentColor"
            opacity={0.3}
          />
          <text x={52} y={TOP + row * BETWEEN + 6} textAnchor="end" fontSize={18} fill="currentColor" opacity={0.8}>
            {height}
          </text>
        </g>
      ))}
      {strokes.map((each, number) => {
        const x = 70 + PITCH * (number + 0.5);
        const y = TOP + HEIGHTS.indexOf(each.height as (typeof HEIGHTS)[number]) * BETWEEN;
        const here = number === now;
        const turned = each.side === "right" ? "scale(-1 1)" : "";
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: strikes stand in order
          <g key={number} transform={`translate(${x} ${y})`} opacity={now < 0 || here ? 1 : 0.45}>
            {each.bend === "defence" ? (
              <circle r={10} fill="none" stroke="currentColor" strokeWidth={4} />
            ) : (
              <>
                <path d={SHAPES[each.bend] ?? SHAPES.straight} transform={turned} fill="currentColor" />
                <circle r={6} fill={here ? "var(--vermilion)" : "currentColor"} />
              </>
            )}
            <text
              y={TOP + 2 * BETWEEN - y + 56}
              textAnchor="middle"
              fontSize={22}
              fontWeight={here ? 700 : 500}
              fill="currentColor"
            >
              {each.word.split(/ (?=to the )/).map((line, at) => (
                <tspan key={line} x={0} dy={at ? 22 : 0}>
                  {line}
                </tspan>
              ))}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** Which strike of what is shown is being called. */
export function calledStroke(calls: readonly { at_s: number; kind: string }[], piece: Piece, at: number): number {
  const own = calls.filter((call) => call.kind === "combination" && call.at_s >= piece.start_s && call.at_s <= at);
  const count = piece.strokes?.length ?? 0;
  return own.length && count ? (own.length - 1) % count : -1;
}
