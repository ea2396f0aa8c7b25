import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need } from "../../api/client";
import { me, runPlans } from "../../api/queries";

/** Whom to call from this hall, as the club has set it; the coach can set it here. */
export function EmergencyNumber({ sessionId, number }: { sessionId: number; number: string }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: (emergency_number: string) => need(api.PUT("/api/club", { body: { emergency_number } })),
    onSuccess: async () => {
      await askAnew(client, { queryKey: runPlans(sessionId) });
      void askAnew(client, { queryKey: me.queryKey });
      setTyped(null);
    },
  });
  if (typed === null) {
    return (
      <p className="flex flex-wrap items-center gap-3 pt-1">
        <span>
          Emergency number of this hall: <b>{number}</b>
        </span>
        <button type="button" className="act" onClick={() => setTyped(number)}>
          Change
        </button>
      </p>
    );
  }
  return (
    <form
      className="flex flex-wrap items-center gap-3 pt-1"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(typed.trim());
      }}
    >
      <label className="flex items-center gap-2">
        Emergency number of this hall
        <input
          className="field max-w-[130px]"
          inputMode="tel"
          maxLength={20}
          value={typed}
          aria-invalid={save.error !== null}
          // biome-ignore lint/a11y/noAutofocus: it was asked for by the button before
          autoFocus
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <button type="submit" className="act main" disabled={save.isPending}>
        {save.isPending ? "Saving …" : "Save"}
      </button>
      <button type="button" className="act" onClick={() => setTyped(null)}>
        Leave it
      </button>
      {save.error && (
        <span role="alert" className="basis-full">
          Figures and the signs + * # only, 2 to 20 of them. {save.error.message}
        </span>
      )}
    </form>
  );
}
