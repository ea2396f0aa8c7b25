import type { FormEvent, ReactNode } from "react";

interface Props {
  title: string;
  text?: ReactNode;
  children?: ReactNode;
}

/** A page before the hall: the mark, what it is, and what is asked. */
export function Door({ title, text, children }: Props) {
  return (
    <main className="mx-auto grid min-h-dvh max-w-[420px] content-center px-4 py-10">
      <img src="/icon.svg" width={56} height={56} alt="" />
      <h1 className="mt-5">{title}</h1>
      {text && <p className="quiet">{text}</p>}
      {children}
    </main>
  );
}

interface FormProps {
  onSubmit: () => void;
  children: ReactNode;
  word: string;
  busy: boolean;
  /** Another key on the page comes first. */
  second?: boolean;
  /** What was refused, and stands at no field. */
  fault: ReactNode;
}

/** What is asked at the door, and its one key. */
export function DoorForm({ onSubmit, children, word, busy, second = false, fault }: FormProps) {
  function submit(event: FormEvent) {
    event.preventDefault();
    onSubmit();
  }
  return (
    <form onSubmit={submit} className="mt-5 grid gap-3 ink-t pt-5">
      {children}
      {fault && <p role="alert">{fault}</p>}
      <button type="submit" className={`act min-h-[44px] ${second ? "" : "main"}`} disabled={busy}>
        {busy ? "One moment …" : word}
      </button>
    </form>
  );
}
