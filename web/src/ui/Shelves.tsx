import { NavLink } from "react-router";
import { useTrains } from "./useTrains";

const SHELVES = [
  { to: "/library", name: "The club's sessions" },
  { to: "/library/schools", name: "The schools' protocols" },
  { to: "/book", name: "Book", training: true },
];

/** The shelves of the library: sessions, protocols, and the book of combinations. */
export function Shelves() {
  const trains = useTrains();
  return (
    <nav aria-label="Shelves" className="flex flex-wrap gap-x-5 pt-1">
      {SHELVES.filter((shelf) => trains || !shelf.training).map((shelf) => (
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
  );
}
