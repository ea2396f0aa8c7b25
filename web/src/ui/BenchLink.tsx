import type { ReactNode } from "react";
import { Link } from "react-router";
import { useTrains } from "./useTrains";

interface Props {
  sessionId: number;
  children: ReactNode;
}

/** A session's title, which leads to the bench for those whom the bench is for. */
export function BenchLink({ sessionId, children }: Props) {
  if (!useTrains()) return children;
  return (
    <Link className="hover:underline" to={`/bench/${sessionId}`}>
      {children}
    </Link>
  );
}
