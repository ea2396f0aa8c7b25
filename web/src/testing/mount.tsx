import { act, type ReactElement } from "react";
import { createRoot, type Root } from "react-dom/client";
import { afterEach, beforeEach } from "vitest";

declare global {
  var IS_REACT_ACT_ENVIRONMENT: boolean;
}

let root: Root;

/** A place on the page for every test; gives how to show something in it. */
export function makePlace(): { show: (what: ReactElement) => HTMLElement } {
  let place: HTMLElement;
  beforeEach(() => {
    globalThis.IS_REACT_ACT_ENVIRONMENT = true;
    place = document.body.appendChild(document.createElement("div"));
    root = createRoot(place);
  });
  afterEach(() => {
    act(() => root.unmount());
    place.remove();
  });
  return {
    show: (what) => {
      act(() => root.render(what));
      return place;
    },
  };
}

/** Type into a field as a person would: React hears of it. */
export function type(input: HTMLInputElement, text: string) {
  act(() => {
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(input, text);
    input.dispatchEvent(new Event("input", { bubbles: true }));
  });
}
