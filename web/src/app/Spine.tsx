import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, NavLink, useLocation } from "react-router";
import type { Schemas } from "../api/client";
import { me } from "../api/queries";
import { useLeave } from "../ui/useLeave";

type Role = Schemas["Role"];
const ALL: Role[] = ["owner", "coach", "assistant"];
const TRAINING: Role[] = ["owner", "coach"];
/** In the order of the day; on a phone the last ones stand under "More". */
const PLACES: { to: string; name: string; roles: Role[]; more?: true; also?: string }[] = [
  { to: "/today", name: "Today", roles: ALL },
  { to: "/bench", name: "Bench", roles: TRAINING },
  { to: "/library", name: "Library", roles: ALL, also: "/book" },
  { to: "/roster", name: "Roster", roles: TRAINING },
  { to: "/log", name: "Log", roles: ALL },
  { to: "/camp", name: "Camp", roles: TRAINING, more: true },
  { to: "/class", name: "Class", roles: TRAINING, more: true },
  { to: "/method", name: "Method", roles: ALL, more: true },
  { to: "/club", name: "Club", roles: ["owner"], more: true },
  { to: "/account", name: "Account", roles: ALL, more: true },
];
const PLACE =
  "flex flex-1 items-center justify-center text-[14px] min-[900px]:h-[52px] min-[900px]:flex-none min-[900px]:border-t min-[900px]:border-[var(--rule-2)]";
const HERE = "bg-[var(--ink)] font-semibold text-[var(--sheet)]";
const QUIET = "quiet cursor-pointer text-[13px] hover:bg-[#E9E3D5]";

/** The bound-book edge: the places of the club, at the left on a desk and below on a phone. */
export function Spine() {
  const role = useQuery(me).data?.role;
  const { pathname } = useLocation();
  const [open, setOpen] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: wherever one goes, the list is closed
  useEffect(() => setOpen(false), [pathname]);
  const leave = useLeave();
  const places = PLACES.filter((place) => role && place.roles.includes(role));
  const further = places.filter((place) => place.more);
  const leaving = leave.isPending ? "Leaving …" : "Leave";
  return (
    <nav
      aria-label="Places"
      className="no-print fixed inset-x-0 bottom-0 z-10 flex h-[58px] border-t border-[var(--rule)] bg-[var(--paper)] min-[900px]:inset-y-0 min-[900px]:right-auto min-[900px]:h-auto min-[900px]:w-[68px] min-[900px]:flex-col min-[900px]:border-t-0 min-[900px]:border-r"
    >
      <Link to="/today" className="mx-auto mt-[22px] mb-[29px] hidden h-[38px] w-[38px] min-[900px]:block">
        <img src="/icon.svg" width={38} height={38} alt="Yoisho" />
      </Link>
      {places.map((place) => (
        <NavLink
          key={place.to}
          to={place.to}
          className={({ isActive }) =>
            `${PLACE} ${place.more ? "max-[899px]:hidden" : ""} ${isActive || pathname === place.also ? HERE : "hover:bg-[#E9E3D5]"}`
          }
        >
          {place.name}
        </NavLink>
      ))}
      <button
        type="button"
        aria-expanded={open}
        className={`${PLACE} cursor-pointer min-[900px]:hidden ${further.some(({ to }) => pathname.startsWith(to)) ? HERE : ""}`}
        onClick={() => setOpen(!open)}
      >
        More
      </button>
      {open && (
        <div className="absolute right-0 bottom-[58px] w-[180px] border border-[var(--ink)] bg-[var(--sheet)] min-[900px]:hidden">
          {further.map((place) => (
            <NavLink
              key={place.to}
              to={place.to}
              className={({ isActive }) =>
                `flex h-[52px] items-center px-4 ${isActive ? HERE : "border-b border-[var(--rule)]"}`
              }
            >
              {place.name}
            </NavLink>
          ))}
          <button type="button" className={`${QUIET} h-[52px] w-full px-4 text-left`} onClick={() => leave.mutate()}>
            {leaving}
          </button>
        </div>
      )}
      <button
        type="button"
        onClick={() => leave.mutate()}
        className={`${QUIET} max-[899px]:hidden min-[900px]:mt-auto min-[900px]:h-[52px]`}
      >
        {leaving}
      </button>
    </nav>
  );
}
