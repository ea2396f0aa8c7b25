import { type QueryKey, useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useState } from "react";
import { askAnew } from "../../api/askAnew";
import { door, NotSure } from "../../api/door";
import { faultOf, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { Sheet } from "../../ui/Sheet";

/** What may be changed only by whoever has shown lately who they are: the password is asked for, and it is done. */
export function useCertain<In, Out>(act: (what: In) => Promise<Out>, changes: QueryKey, onDone?: (out: Out) => void) {
  const client = useQueryClient();
  const change = useMutation({
    mutationFn: act,
    onSuccess: async (out) => {
      onDone?.(out);
      await askAnew(client, { queryKey: changes });
    },
  });
  const unsure = change.error instanceof NotSure;
  const asking: ReactNode = unsure && (
    <Again onSure={() => change.mutate(change.variables as In)} onClose={change.reset} />
  );
  return { ...change, error: unsure ? null : change.error, asking };
}

function Again({ onSure, onClose }: { onSure: () => void; onClose: () => void }) {
  const [password, setPassword] = useState("");
  const show = useMutation({
    mutationFn: () => door("POST", "auth/reauthenticate", { body: { password } }),
    onSuccess: onSure,
  });
  function submit(event: FormEvent) {
    event.preventDefault();
    show.mutate();
  }
  return (
    <Sheet label="Your password again" className="w-[420px] max-w-[94vw]" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <h2>Your password again</h2>
        <p className="quiet">How an account is entered is changed only by whoever it belongs to.</p>
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          autoFocus
          value={password}
          fault={faultOf(show.error, "password")}
          onChange={(event) => setPassword(event.target.value)}
        />
        <FormEnd
          word="It is me"
          busyWord="One moment …"
          busy={show.isPending}
          error={show.error}
          fields={["password"]}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}
