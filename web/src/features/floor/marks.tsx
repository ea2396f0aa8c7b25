import type { Schemas } from "../../api/client";
import { Strokes } from "../../ui/Tally";

/** Three pairs of wooden blocks with their second, inked as each is struck at 3, 2 and 1. */
export function Clappers({ left_s }: { left_s: number }) {
  return (
    <svg viewBox="0 0 126 36" aria-hidden="true" className="h-[36px] flex-none wide:h-[4.5vh]">
      {[3, 2, 1].map((at, index) => {
        const struck = left_s <= at;
        return (
          <g key={at}>
            {[0, 10].map((shift) => (
              <rect
                key={shift}
                x={16 + index * 44 + shift}
                y={2}
                width={7}
                height={30}
                fill={struck ? "currentColor" : "none"}
                stroke="currentColor"
                strokeWidth={2}
              />
            ))}
            <text x={index * 44} y={27} fontSize={26} fill="currentColor">
              {at}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** Five rounds of a tally: done, on, and to come. */
export function RoundTally({ done, now, of }: { done: number; now: number; of: number }) {
  return (
    <svg viewBox="-1 0 38 33" aria-hidden="true" className="h-[9vh] flex-none">
      <Strokes done={done} now={now} of={of} ink="currentColor" outline="currentColor" />
    </svg>
  );
}

/** The whole run as a low strip, with where it stands. */
export function Strip({ plan, at }: { plan: Schemas["RunPlan"]; at: number }) {
  const share = Math.min(1, Math.max(0, at / plan.total_s));
  return (
    <svg viewBox="0 0 1000 34" preserveAspectRatio="none" className="mt-1 block h-[34px] w-full" aria-hidden="true">
      {plan.timeline
        .filter((piece) => piece.kind !== "rest")
        .map((piece) => {
          const height = Math.min(1, piece.demand_frac / 1.85) * 32;
          return (
            <rect
              key={piece.start_s}
              x={(piece.start_s / plan.total_s) * 1000}
              width={Math.max(0.8, (piece.seconds / plan.total_s) * 1000 - 0.8)}
              y={33 - height}
              height={height}
              fill="currentColor"
              opacity={piece.start_s + piece.seconds <= at ? 0.35 : piece.kind === "recover" ? 0.5 : 1}
            />
          );
        })}
      <rect x={0} y={32.5} width={1000} height={1.5} fill="currentColor" />
      <rect x={share * 994} y={0} width={5} height={34} fill="var(--vermilion)" />
    </svg>
  );
}
