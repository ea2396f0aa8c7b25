import { type ReactNode, useEffect, useRef } from "react";
import { keepKeys } from "./keymap";

interface Props {
  label: string;
  className: string;
  onClose: () => void;
  children: ReactNode;
}

/** A sheet over the page, open as long as it is drawn; Escape closes it, and its keys reach nothing beneath. */
export function Sheet({ label, className, onClose, children }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return (
    <dialog
      ref={dialog}
      aria-label={label}
      className={`m-auto max-h-[90dvh] border border-[var(--ink)] bg-[var(--sheet)] p-6 font-normal text-[var(--ink)] backdrop:bg-[rgb(31_42_68/45%)] ${className}`}
      onKeyDown={keepKeys}
      onClose={onClose}
    >
      {children}
    </dialog>
  );
}
