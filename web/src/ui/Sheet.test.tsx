// @vitest-environment jsdom
import { act } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { makePlace } from "../testing/mount";
import { Sheet } from "./Sheet";

const { show } = makePlace();
// What a browser opens a sheet by, and this page lacks.
const { showModal } = HTMLDialogElement.prototype;
beforeEach(() => {
  HTMLDialogElement.prototype.showModal = () => {};
});
afterEach(() => {
  HTMLDialogElement.prototype.showModal = showModal;
});

it("keeps its keys from what is beneath as long as it is open, and not between its closing and its going", () => {
  const beneath = vi.fn();
  window.addEventListener("keydown", beneath);
  const place = show(
    <Sheet label="The class" className="" onClose={() => {}}>
      <button type="button">Swap</button>
    </Sheet>,
  );
  const sheet = place.querySelector("dialog") as HTMLDialogElement;
  sheet.open = true;
  const press = () =>
    act(
      () =>
        void sheet
          .querySelector("button")
          ?.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", bubbles: true })),
    );
  press();
  expect(beneath).not.toHaveBeenCalled();
  sheet.open = false;
  press();
  expect(beneath).toHaveBeenCalledTimes(1);
  window.removeEventListener("keydown", beneath);
});
