// @vitest-environment jsdom

import { QueryClientProvider } from "@tanstack/react-query";
import { act, useRef, useState } from "react";
import { describe, expect, it, vi } from "vitest";
import { complete, makeQueryClient } from "../api/queries";
import { makePlace } from "../testing/mount";
import { Completing, useCompleting } from "./Completing";

const { show } = makePlace();
const OPTIONS = [
  { text: "power", meaning: "as hard as possible, fewer" },
  { text: "pads", meaning: "struck" },
];

function Line({ begun, onText }: { begun: string; onText: (text: string) => void }) {
  const [text, setText] = useState(begun);
  const input = useRef<HTMLTextAreaElement>(null);
  const completing = useCompleting("x", input, text, true, (next) => {
    setText(next);
    onText(next);
  });
  return (
    <>
      <textarea ref={input} value={text} {...completing.combobox} onChange={(event) => setText(event.target.value)} />
      <Completing {...completing} />
    </>
  );
}

function line(begun: string, onText = vi.fn()) {
  const client = makeQueryClient();
  client.setQueryData(complete(begun).queryKey, { start: 5, options: OPTIONS });
  const place = show(
    <QueryClientProvider client={client}>
      <Line key={begun} begun={begun} onText={onText} />
    </QueryClientProvider>,
  );
  const area = place.querySelector("textarea") as HTMLTextAreaElement;
  area.setSelectionRange(begun.length, begun.length);
  const press = (key: string) =>
    act(() => area.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true })));
  const active = () => place.querySelector("[aria-selected=true]")?.firstChild?.textContent ?? null;
  return { place, area, press, active, onText };
}

describe("completion of a line", () => {
  it("offers once a word is begun, and nothing behind a number", () => {
    expect(line("3:00 p").place.querySelectorAll("[role=option]")).toHaveLength(2);
    expect(line("3:00").place.querySelectorAll("[role=option]")).toHaveLength(0);
  });

  it("is walked with the arrows, round both ends, and names the active one", () => {
    const { area, press, active } = line("3:00 p");
    expect(active()).toBeNull();
    press("ArrowDown");
    expect(active()).toBe("power");
    expect(area.getAttribute("aria-activedescendant")).toBe("x-options-0");
    press("ArrowDown");
    press("ArrowDown");
    expect(active()).toBe("power");
    press("ArrowUp");
    expect(active()).toBe("pads");
  });

  it("puts what is taken in the place of what was begun", () => {
    const { press, onText } = line("3:00 p");
    press("ArrowDown");
    press("Enter");
    expect(onText).toHaveBeenCalledWith("3:00 power ");
  });

  it("leaves Enter to the text while nothing is chosen", () => {
    const { press, onText } = line("3:00 p");
    press("Enter");
    expect(onText).not.toHaveBeenCalled();
  });

  it("closes on Escape, which then does nothing else", () => {
    const { area, place } = line("3:00 p");
    const pressed = new KeyboardEvent("keydown", { key: "Escape", bubbles: true, cancelable: true });
    act(() => area.dispatchEvent(pressed));
    expect(place.querySelector("[role=listbox]")).toBeNull();
    expect(pressed.defaultPrevented).toBe(true);
  });

  it("is taken by a press of the pointer", () => {
    const { place, onText } = line("3:00 p");
    act(() => (place.querySelectorAll("[role=option]")[1] as HTMLElement).click());
    expect(onText).toHaveBeenCalledWith("3:00 pads ");
  });
});
