export const STROKES = [
  { x: 3, y: 2, w: 30, h: 4 },
  { x: 16, y: 6, w: 4, h: 20 },
  { x: 20, y: 13, w: 10, h: 4 },
  { x: 7, y: 13, w: 4, h: 13 },
  { x: 1, y: 26, w: 34, h: 4 },
];

/** Five carved strokes, inked as earned. */
export function Tally({ strokes, label }: { strokes: number; label: string }) {
  return (
    <svg width="44" height="38" viewBox="0 0 36 32" role="img" aria-label={label} className="flex-none">
      {STROKES.map((stroke, index) => (
        <rect
          key={`${stroke.x}-${stroke.y}`}
          x={stroke.x + 0.5}
          y={stroke.y + 0.5}
          width={stroke.w - 1}
          height={stroke.h - 1}
          fill={index < strokes ? "var(--ink)" : "none"}
          stroke={index < strokes ? "var(--ink)" : "var(--rule-2)"}
        />
      ))}
    </svg>
  );
}
