import { NavLink } from "react-router";

const TABS = [
  { to: "/library", name: "The club's sessions" },
  { to: "/library/schools", name: "The schools' protocols" },
];

/** The two shelves of the library. */
export function Tabs() {
  return (
    <nav aria-label="Shelves" className="flex gap-5 pt-1">
      {TABS.map((tab) => (
        <NavLink
          key={tab.to}
          to={tab.to}
          end
          className={({ isActive }) =>
            `min-h-[28px] py-1 max-[899px]:min-h-[44px] max-[899px]:py-3 ${
              isActive ? "border-b-2 border-[var(--ink)] font-semibold" : "quiet hover:underline"
            }`
          }
        >
          {tab.name}
        </NavLink>
      ))}
    </nav>
  );
}
