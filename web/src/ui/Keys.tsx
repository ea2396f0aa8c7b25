import { useRef } from "react";
import { keepKeys, LIST, type Place, told, useKeys } from "./keymap";

interface Props {
  /** Where they hold; the first gives the list its name. */
  places: readonly [Place, ...Place[]];
}

/** The keys that hold here: a button, and `?` anywhere outside a field. */
export function Keys({ places }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [{ title }] = places;
  const rows = [...places, LIST].flatMap((place) => place.rows);
  useKeys(LIST, { list: () => dialog.current?.showModal() });
  return (
    <>
      <button type="button" className="link min-h-[30px]" onClick={() => dialog.current?.showModal()}>
        ? Keys
      </button>
      <dialog
        ref={dialog}
        aria-label={title}
        className="m-auto max-h-[90dvh] max-w-[560px] border border-[var(--ink)] bg-[var(--sheet)] p-6 text-[var(--ink)] backdrop:bg-[rgb(31_42_68/45%)]"
        onKeyDown={keepKeys}
      >
        <h2>{title}</h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1 pt-3">
          {rows.map((row) => (
            <div key={row.does} className="contents">
              <dt className="font-semibold whitespace-nowrap">{told(row)}</dt>
              <dd>{row.does}</dd>
            </div>
          ))}
        </dl>
        <form method="dialog" className="pt-4">
          <button type="submit" className="act main">
            Close
          </button>
        </form>
      </dialog>
    </>
  );
}
