import type { ReactNode } from "react";

/** What was worked out before a line that cannot be read: greyed, out of reach, and said so. */
export function Stale({ stale, children }: { stale: boolean; children: ReactNode }) {
  return (
    <div className="relative">
      <div className={stale ? "stale" : ""} inert={stale}>
        {children}
      </div>
      {stale && (
        <p className="absolute top-0 right-0 left-0 z-[5] bg-[var(--sheet)] px-2 py-1 text-[13px]">
          <span className="seal light">Before</span> From before the line that cannot be read yet.
        </p>
      )}
    </div>
  );
}
