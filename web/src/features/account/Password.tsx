import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { door } from "../../api/door";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { Part } from "./Part";

/** Another password. */
export function Password() {
  const [now, setNow] = useState("");
  const [next, setNext] = useState("");
  const change = useMutation({
    mutationFn: () => door("POST", "account/password/change", { body: { current_password: now, new_password: next } }),
    onSuccess: () => {
      setNow("");
      setNext("");
    },
  });
  function submit(event: FormEvent) {
    event.preventDefault();
    change.mutate();
  }
  return (
    <Part title="Password" fault={faultBeside(change.error, ["current_password", "new_password"])}>
      <form onSubmit={submit} className="flex flex-wrap items-start gap-3 pt-2">
        <TextField
          label="Password now"
          type="password"
          autoComplete="current-password"
          required
          value={now}
          fault={faultOf(change.error, "current_password")}
          onChange={(event) => setNow(event.target.value)}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          required
          value={next}
          fault={faultOf(change.error, "new_password")}
          onChange={(event) => setNext(event.target.value)}
        />
        <button type="submit" className="act mt-[20px]" disabled={change.isPending}>
          {change.isPending ? "One moment …" : "Change"}
        </button>
      </form>
      {change.isSuccess && <p role="status">Changed. A mail about it is on its way.</p>}
    </Part>
  );
}
