// @vitest-environment jsdom

import { act } from "react";
import { describe, expect, it, vi } from "vitest";
import { makePlace } from "../testing/mount";
import * as keymap from "./keymap";
import { actionOf, BENCH, FLOOR, keyOf, PAGE, type Place, useKeys } from "./keymap";

const { show } = makePlace();
const PLACES = Object.entries(keymap).filter(([, value]) => typeof value === "object") as [string, Place][];
const pressed = (key: string, more: KeyboardEventInit = {}) =>
  new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true, ...more });

describe("the one list of keys", () => {
  it.each(PLACES)("%s has no key twice, and words for each row", (_name, { title, rows }) => {
    const keys = rows.flatMap((row) => Object.values(row.keys).flat());
    expect(new Set(keys).size).toBe(keys.length);
    expect(title && rows.every((row) => row.does)).toBeTruthy();
  });

  it("takes one of several by its number, in a tick too", () => {
    const take = vi.fn();
    function Ticked() {
      useKeys(PAGE, { close: undefined, take });
      return <input type="checkbox" />;
    }
    const place = show(<Ticked />);
    act(() => void place.querySelector("input")?.dispatchEvent(pressed("3")));
    expect(take).toHaveBeenCalledTimes(1);
  });

  it("reads a key with what is held down beside it", () => {
    expect(actionOf(BENCH, pressed("z", { ctrlKey: true }))).toBe("undo");
    expect(actionOf(BENCH, pressed("Z", { metaKey: true, shiftKey: true }))).toBe("redo");
    expect(actionOf(BENCH, pressed("c"))).toBe("compare");
    expect(actionOf(BENCH, pressed("c", { ctrlKey: true }))).toBeNull();
    expect(actionOf(BENCH, pressed("ArrowUp", { altKey: true }))).toBe("moveUp");
    expect(actionOf(FLOOR, pressed("+", { shiftKey: true }))).toBe("more");
    expect(actionOf(FLOOR, pressed("MediaTrackNext"))).toBe("skip");
  });

  it("tells the key that is pressed", () => {
    expect(keyOf(FLOOR, "toggle")).toBe("Space");
    expect(keyOf(FLOOR, "leave")).toBe("hold Esc");
    expect(keyOf(BENCH, "redo")).toBe("Ctrl Shift Z");
  });
});

describe("a key", () => {
  const undo = vi.fn();
  const save = vi.fn();
  const run = vi.fn();
  function Bench() {
    const none = Object.fromEntries(BENCH.rows.flatMap((row) => Object.keys(row.keys)).map((id) => [id, undefined]));
    useKeys(BENCH, { ...(none as never as Record<keyof typeof none, undefined>), undo, save, run } as never);
    return (
      <>
        <textarea />
        <input role="spinbutton" aria-valuenow={1} />
        <dialog open>
          <button type="button">in</button>
        </dialog>
        <dialog id="closed">
          <input />
        </dialog>
      </>
    );
  }

  it("leaves alone what is written, and works in a number only where it may", () => {
    const place = show(<Bench />);
    const on = (where: string, key: string, more?: KeyboardEventInit) => {
      for (const action of [undo, save, run]) action.mockClear();
      const event = pressed(key, more);
      act(() => place.querySelector(where)?.dispatchEvent(event));
      const called = [undo, save, run].filter((action) => action.mock.calls.length).length;
      expect(event.defaultPrevented).toBe(called > 0);
      return called;
    };
    expect(on("textarea", "r")).toBe(0);
    expect(on("textarea", "z", { ctrlKey: true })).toBe(0);
    expect(on("textarea", "s", { ctrlKey: true })).toBe(1);
    expect(on("[role=spinbutton]", "z", { ctrlKey: true })).toBe(1);
    expect(on("[role=spinbutton]", "r")).toBe(0);
    expect(on("dialog button", "r")).toBe(0);
    expect(on("#closed input", "r")).toBe(1);
    act(() => void document.body.dispatchEvent(pressed("r")));
    expect(run).toHaveBeenCalled();
  });
});
