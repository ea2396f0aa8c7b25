import type { ReactNode } from "react";
import { NavLink } from "react-router";

const SHELVES = [
  { to: "/library", name: "The club's sessions" },
  { to: "/library/schools", name: "The schools' protocols" },
];

/** The head of both shelves of the library, with what each has at its right. */
export function Head({ children }: { children: ReactNode }) {
  return (
    <header className="flex flex-wrap items-end justify-between gap-3 border-b border-[var(--ink)] pb-3">
      <div>
        <h1>Library</h1>
        <nav aria-label="Shelves" className="flex gap-5 pt-1">
          {SHELVES.map((shelf) => (
            <NavLink
              key={shelf.to}
              to={shelf.to}
              end
              className={({ isActive }) =>
                `min-h-[28px] py-1 max-[899px]:min-h-[44px] max-[899px]:py-3 ${
                  isActive ? "border-b-2 border-[var(--ink)] font-semibold" : "quiet hover:underline"
                }`
              }
            >
              {shelf.name}
            </NavLink>
          ))}
        </nav>
      </div>
      {children}
    </header>
  );
}
