import type { ReactNode } from "react";
import { Shelves } from "../../ui/Shelves";

/** The head of both shelves of the library, with what each has at its right. */
export function Head({ children }: { children: ReactNode }) {
  return (
    <header className="flex flex-wrap items-end justify-between gap-3 border-b border-[var(--ink)] pb-3">
      <div>
        <h1>Library</h1>
        <Shelves />
      </div>
      {children}
    </header>
  );
}
