import { type ReactNode, useEffect, useRef } from "react";
import { inSheet, PAGE, useKeys } from "../../ui/keymap";

interface Props {
  title: string;
  under: ReactNode;
  /** A line that tells what goes on, or what was refused. */
  said: string | null;
  /** Chooses the column of a number key. */
  onNumber?: (index: number) => void;
  onClose: () => void;
  limits?: ReactNode;
  children: ReactNode;
}

/** A page that takes the place of the bench for a while; Escape goes back. */
export function Page({ title, under, said, onNumber, onClose, limits, children }: Props) {
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    head.current?.focus({ preventScroll: true });
    window.scrollTo(0, 0);
  }, []);
  useKeys(
    PAGE,
    {
      close: (event) => !inSheet(event.target as HTMLElement) && onClose(),
      take: onNumber && ((event) => onNumber(Number(event.key) - 1)),
    },
    { capture: true },
  );
  return (
    <main className="px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h1 ref={head} tabIndex={-1} className="outline-none">
            {title}
          </h1>
          <p className="quiet">{under}</p>
        </div>
        <button type="button" className="act" onClick={onClose}>
          Back to the bench
        </button>
      </header>
      {limits}
      <p role="status" className="min-h-[22px] text-[13px]">
        {said}
      </p>
      {children}
    </main>
  );
}
