const STROKES = [
  { x: 3, y: 2, w: 30, h: 4 },
  { x: 16, y: 6, w: 4, h: 20 },
  { x: 20, y: 13, w: 10, h: 4 },
  { x: 7, y: 13, w: 4, h: 13 },
  { x: 1, y: 26, w: 34, h: 4 },
];

interface StrokesProps {
  /** So many are inked. */
  done: number;
  /** The one that is on; none for -1. */
  now?: number;
  of?: number;
  ink: string;
  outline: string;
}

/** Five carved strokes, for a drawing 36 wide and 32 high: inked as earned, those to come as outlines. */
export function Strokes({ done, now = -1, of = 5, ink, outline }: StrokesProps) {
  return (
    <>
      {STROKES.slice(0, of).map((stroke, index) => {
        const earned = index === now ? "var(--vermilion)" : index < done ? ink : null;
        return (
          <rect
            key={`${stroke.x}-${stroke.y}`}
            x={stroke.x + 0.5}
            y={stroke.y + 0.5}
            width={stroke.w - 1}
            height={stroke.h - 1}
            fill={earned ?? "none"}
            stroke={earned ?? outline}
          />
        );
      })}
    </>
  );
}

/** A tally of five with its words. */
export function Tally({ strokes, label }: { strokes: number; label: string }) {
  return (
    <svg width="44" height="38" viewBox="0 0 36 32" role="img" aria-label={label} className="flex-none">
      <Strokes done={strokes} ink="var(--ink)" outline="var(--rule-2)" />
    </svg>
  );
}
