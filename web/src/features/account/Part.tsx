import type { ReactNode } from "react";

interface Props {
  title: string;
  text?: ReactNode;
  /** What was refused, and stands at no field. */
  fault?: ReactNode;
  children: ReactNode;
}

/** One part of the account's page. */
export function Part({ title, text, fault, children }: Props) {
  return (
    <section aria-label={title} className="ink-t pt-3 pb-5">
      <h2>{title}</h2>
      {text && <p className="quiet max-w-[640px]">{text}</p>}
      {children}
      {fault && (
        <p role="alert" className="pt-2">
          {fault}
        </p>
      )}
    </section>
  );
}
