import type { ReactNode } from "react";

/** What was worked out before something that cannot be: greyed, out of reach, and said `before` what it is from. */
export function Stale({ before, children }: { before: string | null; children: ReactNode }) {
  return (
    <div className="relative">
      <div className={before ? "stale" : ""} inert={before !== null}>
        {children}
      </div>
      {before && (
        <p className="absolute top-0 right-0 left-0 z-[5] bg-[var(--sheet)] px-2 py-1 text-[13px]">
          <span className="seal light">Before</span> From before {before}.
        </p>
      )}
    </div>
  );
}
