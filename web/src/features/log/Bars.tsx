import type { Schemas } from "../../api/client";
import { type Fold, xOf } from "../../charts/score/layout";

type Round = Schemas["Round"];

interface Props {
  all: Fold[];
  rounds: Round[];
  top: number;
  height: number;
  wide: boolean;
}

const lengthOf = (round: Round): number => Math.max(1, round.end_s - round.start_s);

/**
 * Strikes of each round as an area, so that height is the rate: counted in ink, what falls short of the expected as
 * outline, the expected as a line.
 */
export function Bars({ all, rounds, top, height, wide }: Props) {
  const shown = rounds.filter(
    (round) => round.strikes !== null && round.expected_strikes > 0 && (round.done_s > 0 || round.strikes > 0),
  );
  return (
    <g pointerEvents="none">
      {!wide && (
        <text x={0} y={top - 14} className="fill-[var(--ink-2)] text-[12px]">
          Strikes counted; line: expected
        </text>
      )}
      {all.map((fold, part) => {
        const own = shown.filter((round) => round.part === part);
        // Each part has a scale of its own: rounds are held against their neighbours.
        const rates = own.map((round) => Math.max(round.strikes ?? 0, round.expected_strikes) / lengthOf(round));
        const most = Math.max(0.01, ...rates);
        const tall = (count: number, round: Round) => (count / lengthOf(round) / most) * (height - 18);
        const ground = top + height;
        return (
          <g key={fold.start_s}>
            {own.map((round) => {
              const left = xOf(all, round.start_s, part);
              const width = Math.max(2, xOf(all, round.end_s, part) - left - 1);
              const counted = tall(round.strikes ?? 0, round);
              const expected = tall(round.expected_strikes, round);
              return (
                <g key={round.start_s}>
                  <rect x={left} y={ground - counted} width={width} height={counted} fill="var(--ink)" />
                  {counted < expected && (
                    <rect
                      x={left + 0.5}
                      y={ground - expected}
                      width={Math.max(1, width - 1)}
                      height={expected - counted}
                      fill="none"
                      stroke="var(--ink)"
                    />
                  )}
                  <line
                    x1={left - 2}
                    x2={left + width + 2}
                    y1={ground - expected}
                    y2={ground - expected}
                    stroke="var(--ink)"
                    strokeWidth={1.4}
                  />
                  {width > 15 && (
                    <text
                      x={left + width / 2}
                      y={ground - Math.max(counted, expected) - 4}
                      textAnchor="middle"
                      className="fill-[var(--ink)] text-[12px] font-semibold"
                    >
                      {round.strikes}
                    </text>
                  )}
                </g>
              );
            })}
            <line x1={fold.x} x2={fold.x + fold.width} y1={ground} y2={ground} stroke="var(--ink)" />
          </g>
        );
      })}
    </g>
  );
}
