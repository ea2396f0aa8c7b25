// @vitest-environment jsdom

import { act } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { makePlace } from "../testing/mount";
import { Keys } from "./Keys";
import { BENCH, STEPPER } from "./keymap";

const { show } = makePlace();
const showModal = vi.fn();
beforeEach(() => {
  showModal.mockClear();
  HTMLDialogElement.prototype.showModal = showModal;
});
const press = (on: Element) =>
  act(() => on.dispatchEvent(new KeyboardEvent("keydown", { key: "?", bubbles: true, cancelable: true })));

describe("the keys of a place", () => {
  it("are listed by a button and by a question mark", () => {
    const place = show(<Keys places={[BENCH, STEPPER]} />);
    act(() => place.querySelector("button")?.click());
    press(document.body);
    expect(showModal).toHaveBeenCalledTimes(2);
    const list = [...place.querySelectorAll("dl > div")].map((row) => row.textContent);
    expect(list).toContain("Plet protocols be proposed; 1 to 5 takes one");
    expect(list).toContain("Ctrl Z · Ctrl Shift Zundo, redo");
    expect(list).toContain("+ · −more, less");
    expect(list.at(-1)).toBe("?this list");
  });

  it("leave a question mark in a field alone", () => {
    const place = show(
      <>
        <input />
        <Keys places={[BENCH]} />
      </>,
    );
    press(place.querySelector("input") as Element);
    expect(showModal).not.toHaveBeenCalled();
  });
});
