import type { ReactNode } from "react";

interface Props {
  title: string;
  text?: ReactNode;
  waiting?: boolean;
  /** It was tried and did not come yet. */
  lost?: boolean;
  /** What was asked for: it is waited for, or was refused. */
  asked?: { error: Error | null; failureCount: number };
  children?: ReactNode;
}

/** A page or a panel that has nothing to draw yet: waiting, empty or failed, with a way on. */
export function Notice({ title, asked, text, waiting, lost, children }: Props) {
  if (asked?.error) return <Notice title={title} text={asked.error.message} />;
  if (asked) return <Notice waiting lost={asked.failureCount > 0} title={title} />;
  return (
    <div className="m-auto max-w-[520px] px-4 py-16" role={waiting ? "status" : undefined}>
      <h2>
        {title}
        {waiting ? " …" : ""}
      </h2>
      {text && <p className="mt-1 quiet">{text}</p>}
      {lost && (
        <p className="mt-3 flex gap-3">
          <span className="seal">Off line</span> No connection. It is tried again every two seconds.
        </p>
      )}
      {children && <div className="mt-4 flex flex-wrap gap-2">{children}</div>}
    </div>
  );
}
