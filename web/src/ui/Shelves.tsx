import { NavLink } from "react-router";
import { useTrains } from "./useTrains";

interface Shelf {
  to: string;
  name: string;
  /** For those who train people. */
  training?: boolean;
}

const LIBRARY: Shelf[] = [
  { to: "/library", name: "The club's sessions" },
  { to: "/library/schools", name: "The schools' protocols" },
  { to: "/book", name: "Book", training: true },
];
const LOG: Shelf[] = [
  { to: "/log", name: "What was done" },
  { to: "/log/trends", name: "Trends", training: true },
];

/** The shelves of the library: sessions, protocols, and the book of combinations. */
export const Shelves = () => <Row name="Shelves" shelves={LIBRARY} />;

/** The two sides of the log: its entries, and what they come to over weeks. */
export const LogShelves = () => <Row name="Log" shelves={LOG} />;

function Row({ name, shelves }: { name: string; shelves: Shelf[] }) {
  const trains = useTrains();
  return (
    <nav aria-label={name} className="flex flex-wrap gap-x-5 border-b border-[var(--ink)] pt-1">
      {shelves
        .filter((shelf) => trains || !shelf.training)
        .map((shelf) => (
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
