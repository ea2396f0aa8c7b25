// @vitest-environment jsdom

import { act } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { clock, readClock } from "../domain/time";
import { makePlace, type } from "../testing/mount";
import { Stepper } from "./Stepper";

const { show: showIn } = makePlace();
const onChange = vi.fn();
const onAhead = vi.fn();
beforeEach(() => {
  onChange.mockClear();
  onAhead.mockClear();
});

function show(value: number) {
  const place = showIn(
    <Stepper
      label="Rest"
      value={value}
      min={0}
      max={600}
      show={clock}
      read={readClock}
      step={(seconds) => (seconds < 10 ? 1 : 5)}
      onChange={onChange}
      onAhead={onAhead}
    />,
  );
  const input = place.querySelector("input");
  if (!input) throw new Error("no field");
  return input;
}

const press = (input: HTMLInputElement, key: string) =>
  act(() => {
    input.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
  });

describe("a stepper", () => {
  it("says its name, value and bounds to those who hear it", () => {
    const input = show(20);
    expect(document.querySelector("label")?.textContent).toBe("Rest");
    expect(input.getAttribute("aria-valuetext")).toBe("0:20");
    expect([input.getAttribute("aria-valuemin"), input.getAttribute("aria-valuemax")]).toEqual(["0", "600"]);
  });

  it.each([
    ["+", 20, 25],
    ["ArrowUp", 20, 25],
    ["-", 20, 15],
    ["ArrowDown", 20, 15],
    ["-", 10, 9],
    ["+", 9, 10],
    ["+", 12, 15],
  ])("%s takes %i to %i", (key, from, to) => {
    press(show(from), key);
    expect(onChange).toHaveBeenCalledExactlyOnceWith(to);
  });

  it("stays within its bounds", () => {
    press(show(600), "+");
    press(show(0), "-");
    expect(onChange).not.toHaveBeenCalled();
  });

  it("takes what is typed as soon as it makes sense", () => {
    const input = show(20);
    type(input, "1:");
    expect(onChange).not.toHaveBeenCalled();
    type(input, "1:15");
    expect(onChange).toHaveBeenCalledExactlyOnceWith(75);
  });

  it("says the bounds where what is typed is impossible, and keeps the value", () => {
    const input = show(20);
    type(input, "99:00");
    expect(document.querySelector("[role=alert]")?.textContent).toBe("from 0:00 to 10:00");
    expect(input.getAttribute("aria-invalid")).toBe("true");
    expect(onChange).not.toHaveBeenCalled();
  });

  it("changes by a press of its two ends", () => {
    show(20);
    for (const end of document.querySelectorAll("button")) act(() => end.click());
    expect(onChange.mock.calls).toEqual([[15], [25]]);
  });

  it("tells what a step would make of it as soon as the hand is near", () => {
    const input = show(20);
    act(() => input.focus());
    expect(onAhead.mock.calls).toEqual([[25], [15]]);
    for (const end of document.querySelectorAll("button"))
      act(() => end.dispatchEvent(new MouseEvent("pointerover", { bubbles: true })));
    expect(onAhead.mock.calls.slice(2)).toEqual([[15], [25]]);
    expect(onChange).not.toHaveBeenCalled();
  });

  it("tells of no step past its bounds", () => {
    const input = show(600);
    act(() => input.focus());
    expect(onAhead.mock.calls).toEqual([[595]]);
  });
});
