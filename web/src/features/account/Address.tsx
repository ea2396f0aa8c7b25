import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { door } from "../../api/door";
import { me } from "../../api/queries";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { Part } from "./Part";
import { useCertain } from "./useCertain";

interface EmailAddress {
  email: string;
  verified: boolean;
  primary: boolean;
}
const KEY = ["account", "addresses"];

/** The address that somebody signs in with, and the one that waits to be confirmed. */
export function Address() {
  const query = useQuery({ queryKey: KEY, queryFn: () => door<EmailAddress[]>("GET", "account/email"), staleTime: 0 });
  const [email, setEmail] = useState("");
  const change = useCertain(
    (to: string) => door("POST", "account/email", { body: { email: to } }),
    KEY,
    () => setEmail(""),
  );
  const drop = useCertain((gone: string) => door("DELETE", "account/email", { body: { email: gone } }), KEY);
  const addresses = query.data?.data ?? [];
  const now = useQuery(me).data?.email;
  const waiting = addresses.find((each) => !each.primary);
  function submit(event: FormEvent) {
    event.preventDefault();
    change.mutate(email);
  }
  return (
    <Part
      title="Address"
      text={now ? `You sign in with ${now}.` : "No address yet."}
      fault={faultBeside(change.error ?? drop.error ?? query.error, ["email"])}
    >
      {waiting && (
        <p className="flex flex-wrap items-center gap-3 pt-2">
          <span>
            A mail to <b>{waiting.email}</b> waits to be answered; until then nothing changes.
          </span>
          <button
            type="button"
            className="act"
            disabled={drop.isPending}
            aria-label={`Take back: ${waiting.email}`}
            onClick={() => drop.mutate(waiting.email)}
          >
            Take back
          </button>
        </p>
      )}
      <form onSubmit={submit} className="flex flex-wrap items-start gap-3 pt-2">
        <TextField
          label="Another address"
          type="email"
          required
          maxLength={150}
          value={email}
          fault={faultOf(change.error, "email")}
          onChange={(event) => setEmail(event.target.value)}
        />
        <button type="submit" className="act mt-[20px]" disabled={change.isPending}>
          {change.isPending ? "One moment …" : "Send a mail to it"}
        </button>
      </form>
      {change.asking}
      {drop.asking}
    </Part>
  );
}
