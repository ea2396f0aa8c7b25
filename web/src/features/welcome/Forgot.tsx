import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { askAnew } from "../../api/askAnew";
import { door } from "../../api/door";
import { me } from "../../api/queries";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { PASSWORD_HINT } from "./Account";
import { Door, DoorForm } from "./Door";

/** A link to choose a new password is asked for. */
export function Forgot() {
  const [email, setEmail] = useState("");
  const ask = useMutation({ mutationFn: () => door("POST", "auth/password/request", { body: { email } }) });
  if (ask.isSuccess) {
    return (
      <Door
        title="Look at your mail"
        text={`If there is an account for ${email}, a link is on its way. It works once.`}
      >
        <Link className="act mt-5 justify-self-start" to="/">
          To the door
        </Link>
      </Door>
    );
  }
  return (
    <Door title="A new password" text="A link to choose one is sent to your address.">
      <DoorForm
        onSubmit={() => ask.mutate()}
        word="Send the link"
        busy={ask.isPending}
        fault={faultBeside(ask.error, ["email"])}
      >
        <TextField
          label="E-mail address"
          type="email"
          autoComplete="username"
          required
          value={email}
          fault={faultOf(ask.error, "email")}
          onChange={(event) => setEmail(event.target.value)}
        />
      </DoorForm>
      <Link className="act mt-3 justify-self-start" to="/">
        Back
      </Link>
    </Door>
  );
}

/** The link was followed: the new password. */
export function Reset() {
  const key = useParams().key ?? "";
  const client = useQueryClient();
  const navigate = useNavigate();
  const [password, setPassword] = useState("");
  const reset = useMutation({
    // With a second step the door asks for it next.
    mutationFn: () => door("POST", "auth/password/reset", { body: { key, password }, also: [401] }),
    onSuccess: async () => {
      await navigate("/", { replace: true });
      await client.fetchQuery({ ...me, staleTime: 0 });
    },
  });
  const over = faultOf(reset.error, "key");
  if (over) {
    return (
      <Notice title="This link opens nothing" text={over}>
        <Link className="act main" to="/forgot">
          Ask for a new one
        </Link>
      </Notice>
    );
  }
  return (
    <Door title="A new password">
      <DoorForm
        onSubmit={() => reset.mutate()}
        word="Keep it, and come in"
        busy={reset.isPending}
        fault={faultBeside(reset.error, ["password"])}
      >
        <TextField
          label="New password"
          hint={PASSWORD_HINT}
          type="password"
          autoComplete="new-password"
          required
          value={password}
          fault={faultOf(reset.error, "password")}
          onChange={(event) => setPassword(event.target.value)}
        />
      </DoorForm>
    </Door>
  );
}

/** The link in the mail to a new address was followed. */
export function Confirm() {
  const client = useQueryClient();
  const key = useParams().key ?? "";
  const navigate = useNavigate();
  const confirm = useMutation({
    // It answers 401 to somebody who is not signed in: the address is confirmed all the same.
    mutationFn: () => door("POST", "auth/email/verify", { body: { key }, also: [401] }),
    onSuccess: () => askAnew(client, me),
  });
  const done = () => navigate("/", { replace: true });
  if (confirm.error || confirm.isSuccess) {
    const text = confirm.error ? confirm.error.message : "From now on you sign in with it.";
    return (
      <Notice title={confirm.error ? "This link opens nothing" : "It is your address"} text={text}>
        <button type="button" className="act main" onClick={done}>
          Go on
        </button>
      </Notice>
    );
  }
  return (
    <Notice title="Is this your address?" text="Then you sign in with it from now on.">
      <button type="button" className="act main" disabled={confirm.isPending} onClick={() => confirm.mutate()}>
        {confirm.isPending ? "One moment …" : "It is mine"}
      </button>
    </Notice>
  );
}
