import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, type RefObject, useState } from "react";
import { flushSync } from "react-dom";
import type { Schemas } from "../api/client";
import { complete } from "../api/queries";
import { actionOf, LINE } from "./keymap";
import { useSettled } from "./useSettled";

interface Shown {
  list: string;
  options: Schemas["Option"][];
  active: number;
  onTake: (option: Schemas["Option"]) => void;
}

/**
 * Completion of a line in a text area, as a combobox. It offers once a word is begun at the end of the text, or on
 * Ctrl Space; arrows choose, Enter takes, Escape closes.
 */
export function useCompleting(
  id: string,
  input: RefObject<HTMLTextAreaElement | null>,
  text: string,
  typing: boolean,
  onText: (text: string) => void,
) {
  const [closed, setClosed] = useState<string | null>(null);
  const [active, setActive] = useState(-1);
  const [asked, setAsked] = useState(false);
  const settled = useSettled(text);
  const atEnd = !input.current || input.current.selectionEnd === text.length;
  const begun = typing && atEnd && /[\p{L}@]$/u.test(text);
  const wanted = (begun || asked) && closed !== text && settled === text;
  const { data } = useQuery({ ...complete(text), enabled: wanted });
  const options = wanted && data ? data.options : [];
  const open = options.length > 0;
  const start = data?.start ?? 0;

  const close = () => {
    setClosed(text);
    setAsked(false);
    setActive(-1);
  };
  const onTake = (option: Schemas["Option"]) => {
    const next = `${text.slice(0, start)}${option.text} `;
    flushSync(() => {
      setAsked(false);
      setActive(-1);
      onText(next);
    });
    input.current?.focus();
    input.current?.setSelectionRange(next.length, next.length);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    if (actionOf(LINE, event) === "complete") {
      event.preventDefault();
      setClosed(null);
      setAsked(true);
      return;
    }
    if (!open) return;
    const chosen = options[active];
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      const step = event.key === "ArrowDown" ? 1 : -1;
      setActive((Math.max(active, step < 0 ? 0 : -1) + step + options.length) % options.length);
    } else if (event.key === "Enter" && chosen) {
      event.preventDefault();
      onTake(chosen);
    } else if (event.key === "Escape") {
      // What is written stays: this one only closes the list.
      event.preventDefault();
      event.stopPropagation();
      close();
    }
  };
  const list = `${id}-options`;
  return {
    list,
    options,
    active,
    onTake,
    close,
    combobox: {
      role: "combobox",
      "aria-autocomplete": "list" as const,
      "aria-expanded": open,
      "aria-controls": open ? list : undefined,
      "aria-activedescendant": open && active >= 0 ? `${list}-${active}` : undefined,
      onKeyDown,
    },
  };
}

/** The options, under the line. */
export function Completing({ list, options, active, onTake }: Shown) {
  if (!options.length) return null;
  return (
    <ul
      id={list}
      // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: the list of a combobox
      role="listbox"
      aria-label="What could come next"
      className="absolute z-10 max-h-[240px] min-w-[260px] overflow-y-auto border border-[var(--ink)] bg-[var(--sheet)] text-[14px]"
    >
      {options.map((option, index) => (
        // biome-ignore lint/a11y/useKeyWithClickEvents: the caret stays in the text, whose keys choose
        <li
          key={option.text}
          id={`${list}-${index}`}
          // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: an option of a combobox
          role="option"
          tabIndex={-1}
          aria-selected={index === active}
          className={`flex cursor-pointer justify-between gap-4 px-[10px] py-[5px] max-[899px]:py-[11px] ${
            index === active ? "bg-[var(--ink)] text-[var(--sheet)]" : "hover:bg-[#E9E3D5]"
          }`}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onTake(option)}
        >
          <span className="font-semibold">{option.text}</span>
          <span className={index === active ? "" : "quiet"}>{option.meaning}</span>
        </li>
      ))}
    </ul>
  );
}
