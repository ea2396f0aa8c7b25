import { useEffect, useRef } from "react";

interface Props {
  title: string;
  keys: [string, string][];
}

/** The keys of a place: a button, and `?` anywhere outside a field. */
export function Keys({ title, keys }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "?" || (event.target as HTMLElement).closest("input, textarea, select")) return;
      event.preventDefault();
      dialog.current?.showModal();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <button type="button" className="link min-h-[30px]" onClick={() => dialog.current?.showModal()}>
        ? Keys
      </button>
      <dialog
        ref={dialog}
        aria-label={title}
        className="m-auto max-h-[90dvh] max-w-[560px] border border-[var(--ink)] bg-[var(--sheet)] p-6 text-[var(--ink)] backdrop:bg-[rgb(31_42_68/45%)]"
        onKeyDown={(event) => event.stopPropagation()}
      >
        <h2>{title}</h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1 pt-3">
          {keys.map(([key, what]) => (
            <div key={key} className="contents">
              <dt className="font-semibold whitespace-nowrap">{key}</dt>
              <dd>{what}</dd>
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
