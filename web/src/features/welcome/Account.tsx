import { type ReactNode, useState } from "react";
import type { Schemas } from "../../api/client";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { DoorForm } from "./Door";

type Account = Schemas["Account"];

export const PASSWORD_HINT = "Eight characters or more, and not one that everybody has. A few words do well.";

interface Props {
  name?: string;
  email?: string;
  /** What else is asked, above the account. */
  children?: ReactNode;
  /** The fields of what else is asked. */
  fields?: string[];
  word: string;
  busy: boolean;
  error: Error | null;
  onSubmit: (account: Account) => void;
}

/** Who somebody is and how they sign in. */
export function AccountForm({
  name: known = "",
  email: sentTo = "",
  children,
  fields = [],
  word,
  busy,
  error,
  onSubmit,
}: Props) {
  const [name, setName] = useState(known);
  const [email, setEmail] = useState(sentTo);
  const [password, setPassword] = useState("");
  return (
    <DoorForm
      word={word}
      busy={busy}
      fault={faultBeside(error, ["name", "email", "password", ...fields])}
      onSubmit={() => onSubmit({ name, email, password })}
    >
      {children}
      <TextField
        label="Your name"
        required
        maxLength={120}
        autoComplete="name"
        value={name}
        fault={faultOf(error, "name")}
        onChange={(event) => setName(event.target.value)}
      />
      <TextField
        label="E-mail address, to sign in with"
        type="email"
        required
        maxLength={150}
        autoComplete="username"
        value={email}
        fault={faultOf(error, "email")}
        onChange={(event) => setEmail(event.target.value)}
      />
      <TextField
        label="Password"
        hint={PASSWORD_HINT}
        type="password"
        required
        maxLength={200}
        autoComplete="new-password"
        value={password}
        fault={faultOf(error, "password")}
        onChange={(event) => setPassword(event.target.value)}
      />
    </DoorForm>
  );
}
