import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link, NavLink } from "react-router";
import { api, need } from "../api/client";

const PLACES = [
  { to: "/library", name: "Library" },
  { to: "/bench", name: "Bench" },
  { to: "/book", name: "Book" },
  { to: "/roster", name: "Roster" },
  { to: "/log", name: "Log" },
  { to: "/method", name: "Method" },
];

/** The bound-book edge: the places of the club, at the left on a desk and below on a phone. */
export function Spine() {
  const client = useQueryClient();
  const leave = useMutation({
    mutationFn: () => need(api.POST("/api/sign-out")),
    onSuccess: (welcome) => {
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
      client.setQueryData(["me"], welcome);
      if ("caches" in globalThis) void caches.delete("yoisho-runs");
    },
  });
  return (
    <nav
      aria-label="Places"
      className="no-print fixed inset-x-0 bottom-0 z-10 flex h-[58px] border-t border-[var(--rule)] bg-[var(--paper)] min-[900px]:inset-y-0 min-[900px]:right-auto min-[900px]:h-auto min-[900px]:w-[68px] min-[900px]:flex-col min-[900px]:border-t-0 min-[900px]:border-r"
    >
      <Link to="/library" className="mx-auto mt-[22px] mb-[29px] hidden h-[38px] w-[38px] min-[900px]:block">
        <img src="/icon.svg" width={38} height={38} alt="Yoisho" />
      </Link>
      {PLACES.map((place) => (
        <NavLink
          key={place.to}
          to={place.to}
          className={({ isActive }) =>
            `flex flex-1 items-center justify-center text-[14px] min-[900px]:h-[52px] min-[900px]:flex-none min-[900px]:border-t min-[900px]:border-[var(--rule-2)] ${
              isActive ? "bg-[var(--ink)] font-semibold text-[var(--sheet)]" : "hover:bg-[#E9E3D5]"
            }`
          }
        >
          {place.name}
        </NavLink>
      ))}
      <button
        type="button"
        onClick={() => leave.mutate()}
        className="flex-1 cursor-pointer text-[13px] quiet hover:bg-[#E9E3D5] min-[900px]:mt-auto min-[900px]:h-[52px] min-[900px]:flex-none"
      >
        {leave.isPending ? "Leaving …" : "Leave"}
      </button>
    </nav>
  );
}
