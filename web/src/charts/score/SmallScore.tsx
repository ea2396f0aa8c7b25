import { FULL_HEIGHT, tone } from "./ink";

interface Props {
  blocks: { seconds: number; demand_frac: number }[];
  label: string;
}

/** The silhouette of a session in small: no axis, no lanes. */
export function SmallScore({ blocks, label }: Props) {
  const starts: number[] = [];
  let total = 0;
  for (const { seconds } of blocks) {
    starts.push(total);
    total += seconds;
  }
  return (
    <svg
      role="img"
      aria-label={label}
      className="h-full w-full border-b border-[var(--ink)]"
      viewBox={`0 0 ${total || 1} ${FULL_HEIGHT}`}
      preserveAspectRatio="none"
    >
      {blocks.map(({ seconds, demand_frac: demand }, index) => (
        <rect
          key={starts[index]}
          x={starts[index]}
          y={FULL_HEIGHT - demand}
          width={seconds}
          height={demand}
          fill={tone(demand)}
        />
      ))}
    </svg>
  );
}
