// @vitest-environment jsdom

import { QueryClientProvider } from "@tanstack/react-query";
import { act } from "react";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { makeQueryClient, people, weeks } from "../../api/queries";
import { makePlace } from "../../testing/mount";
import { Weeks } from "./Weeks";

const { show } = makePlace();
const PEOPLE = [
  { id: 1, name: "Runa Velde" },
  { id: 2, name: "Ife Marlowe" },
] as Schemas["PersonOut"][];
const week = (monday: string, sessions: number, strikes: number, counted = 0): Schemas["WeekOut"] => ({
  monday,
  sessions,
  strikes,
  counted,
  limbs: sessions ? { "left hand": strikes - 10, "right leg": 10 } : {},
  heights: {},
});

function page(who: Schemas["PersonOut"][], of: Record<number, Schemas["WeekOut"][]>) {
  const client = makeQueryClient();
  client.setQueryData(people.queryKey, who);
  for (const [id, held] of Object.entries(of)) client.setQueryData(weeks(Number(id)).queryKey, held);
  return show(
    <QueryClientProvider client={client}>
      <Weeks />
    </QueryClientProvider>,
  );
}

describe("strikes by week", () => {
  const held = { 1: [week("2026-11-16", 2, 210.4, 90), week("2026-11-23", 0, 0)], 2: [week("2026-11-23", 0, 0)] };

  it("stand by limb, with what of them was counted", () => {
    const rows = [...page(PEOPLE, held).querySelectorAll("tbody tr")].map((row) =>
      [...row.querySelectorAll("td:not(:empty)")].map((cell) => cell.textContent).filter(Boolean),
    );
    expect(rows[0]).toEqual(["210", "200", "0", "0", "10", "90"]);
    expect(rows[1]).toEqual(["0", "0", "0", "0", "0", "0"]);
  });

  it("are measured against the week with most", () => {
    const bars = [...page(PEOPLE, held).querySelectorAll<HTMLElement>("tbody td span")].map((bar) => bar.style.width);
    expect(bars).toEqual(["100%", "0%"]);
  });

  it("follow the person, and say where nothing was logged", () => {
    const place = page(PEOPLE, held);
    const select = place.querySelector("select") as HTMLSelectElement;
    act(() => {
      select.value = "2";
      select.dispatchEvent(new Event("change", { bubbles: true }));
    });
    expect(place.textContent).toContain("Nothing logged in the last eight weeks.");
  });

  it("are not there where the club has nobody", () => {
    expect(page([], {}).textContent).toBe("");
  });
});
