import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

interface Props {
  /** What is deleted, as the button is read out. */
  name: string;
  /** What goes with it, and what stays. */
  warning: string;
  remove: () => Promise<unknown>;
  onGone: () => void;
}

/** A row of a list that can be deleted: asked about once, with what goes with it. */
export function Deleting({ name, warning, remove, onGone }: Props) {
  const [sure, setSure] = useState(false);
  const gone = useMutation({ mutationFn: remove, onSuccess: onGone });
  return (
    <>
      {sure ? (
        <span className="flex flex-wrap items-center gap-2">
          {warning}
          <button type="button" className="act" disabled={gone.isPending} onClick={() => gone.mutate()}>
            {gone.isPending ? "Deleting …" : "Yes, delete it"}
          </button>
          <button type="button" className="act" onClick={() => setSure(false)}>
            Keep it
          </button>
        </span>
      ) : (
        <button type="button" className="act" aria-label={`Delete ${name}`} onClick={() => setSure(true)}>
          Delete
        </button>
      )}
      {gone.error && <p role="alert">{gone.error.message}</p>}
    </>
  );
}
