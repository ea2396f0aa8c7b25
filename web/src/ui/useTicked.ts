import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

/** A tick that the server keeps: it turns at once, and goes by what is kept as soon as `keep` has heard of that. */
export function useTicked(kept: boolean, keep: (ticked: boolean) => Promise<unknown>) {
  const [asked, setAsked] = useState<boolean | null>(null);
  const { mutate, error } = useMutation({ mutationFn: keep, onSettled: () => setAsked(null) });
  return {
    ticked: asked ?? kept,
    waiting: asked !== null,
    error,
    tick: (next: boolean) => {
      setAsked(next);
      mutate(next);
    },
  };
}
