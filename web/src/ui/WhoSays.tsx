import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import { method as methodQuery } from "../api/queries";
import { capital } from "./capital";
import { Sheet } from "./Sheet";

interface Props {
  /** Of the figure, as the method names it. */
  id: string;
  children: ReactNode;
}

/** A number that can be asked who says so: what it is and its source, and the way to its entry in the method. */
export function WhoSays({ id, children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="-my-[4px] inline-block min-h-[24px] min-w-[24px] cursor-help py-[4px] text-left underline decoration-[var(--rule-2)] decoration-dotted underline-offset-4 hover:decoration-[var(--ink)]"
        title="Who says so?"
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
      >
        {children}
      </button>
      {open && <Entry id={id} onClose={() => setOpen(false)} />}
    </>
  );
}

function Entry({ id, onClose }: { id: string; onClose: () => void }) {
  const query = useQuery(methodQuery);
  const entry = query.data?.figures.find((figure) => figure.id === id);
  return (
    <Sheet label="Who says so?" className="w-[min(480px,calc(100vw-32px))]" onClose={onClose}>
      <h2>{capital(entry?.name ?? "Who says so?")}</h2>
      <p className="pt-2 text-[14px] leading-[20px]">{entry?.meaning ?? query.error?.message ?? "Looking it up …"}</p>
      {entry && <p className="quiet pt-2 text-[13px] leading-[17px]">Who says so: {entry.source}.</p>}
      <p className="flex gap-2 pt-4">
        <Link className="act main" to={`/method#${entry?.section ?? ""}`}>
          Read the method
        </Link>
        <button type="button" className="act" onClick={onClose}>
          Close
        </button>
      </p>
    </Sheet>
  );
}
