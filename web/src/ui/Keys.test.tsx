import { act } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { makePlace } from "../testing/mount";
import { Keys } from "./Keys";

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
    const place = show(<Keys title="Keys of the bench" keys={[["P", "let protocols be proposed"]]} />);
    act(() => place.querySelector("button")?.click());
    press(document.body);
    expect(showModal).toHaveBeenCalledTimes(2);
    expect(place.querySelector("dialog")?.textContent).toContain("Plet protocols be proposed");
  });

  it("leave a question mark in a field alone", () => {
    const place = show(
      <>
        <input />
        <Keys title="Keys" keys={[]} />
      </>,
    );
    press(place.querySelector("input") as Element);
    expect(showModal).not.toHaveBeenCalled();
  });
});
