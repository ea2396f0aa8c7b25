import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { door, SecondStepWanted } from "../../api/door";
import { me } from "../../api/queries";
import { askPasskey, hasPasskeys } from "../../domain/device/passkeys";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { Door, DoorForm } from "./Door";

/** The door: sign in, or one click into the demo. */
export function Welcome({ demo }: { demo: boolean }) {
  const client = useQueryClient();
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const entered = () => client.fetchQuery({ ...me, staleTime: 0 });
  const signIn = useMutation({
    mutationFn: () => door("POST", "auth/login", { body: { email: email.trim(), password } }),
    onSuccess: entered,
  });
  const passkey = useMutation({ mutationFn: byPasskey, onSuccess: entered });
  const enterDemo = useMutation({ mutationFn: () => need(api.POST("/api/demo")), onSuccess: entered });
  if (signIn.error instanceof SecondStepWanted) return <SecondStep onDone={entered} onBack={signIn.reset} />;
  const busy = signIn.isPending || enterDemo.isPending || passkey.isPending;
  const away = busy && signIn.failureCount + enterDemo.failureCount + passkey.failureCount > 0;
  const error = signIn.error ?? enterDemo.error ?? passkey.error;
  return (
    <Door title="Yoisho" text="Say what a striking session is for. See what it does. Run it, and log it.">
      {demo && (
        <button type="button" className="act main mt-7 min-h-[48px]" disabled={busy} onClick={() => enterDemo.mutate()}>
          {enterDemo.isPending ? "Opening the hall …" : "Enter as the demo coach"}
        </button>
      )}
      <DoorForm
        onSubmit={() => signIn.mutate()}
        word="Sign in"
        busy={busy}
        second={demo}
        fault={away ? "No connection. Trying again every two seconds." : faultBeside(error, ["email", "password"])}
      >
        <h2>Sign in to your club</h2>
        <TextField
          label="E-mail address"
          type="email"
          autoComplete="username"
          required
          value={email}
          fault={faultOf(signIn.error, "email")}
          onChange={(event) => setEmail(event.target.value)}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          fault={faultOf(signIn.error, "password")}
          onChange={(event) => setPassword(event.target.value)}
        />
      </DoorForm>
      <p className="mt-4 flex flex-wrap gap-x-5 gap-y-2">
        <Link className="link" to="/forgot">
          The password is forgotten
        </Link>
        {hasPasskeys() && (
          <button type="button" className="link" disabled={busy} onClick={() => passkey.mutate()}>
            Sign in with a passkey
          </button>
        )}
        {demo && (
          <Link className="link" to="/mailbox">
            What was mailed
          </Link>
        )}
      </p>
    </Door>
  );
}

interface Options {
  request_options: { publicKey: PublicKeyCredentialRequestOptionsJSON };
}

async function byPasskey() {
  const asked = await door<Options>("GET", "auth/webauthn/login");
  const credential = await askPasskey(asked.data.request_options.publicKey);
  return door("POST", "auth/webauthn/login", { body: { credential } });
}

/** The password was right; now the code of the moment, or one of those that were written down. */
function SecondStep({ onDone, onBack }: { onDone: () => void; onBack: () => void }) {
  const [code, setCode] = useState("");
  const step = useMutation({
    mutationFn: () => door("POST", "auth/2fa/authenticate", { body: { code: code.replaceAll(" ", "") } }),
    onSuccess: onDone,
  });
  return (
    <Door title="And the second step" text="The six figures that your app shows now, or one of your spare codes.">
      <DoorForm
        onSubmit={() => step.mutate()}
        word="Go on"
        busy={step.isPending}
        fault={faultBeside(step.error, ["code"])}
      >
        <TextField
          label="Code"
          inputMode="numeric"
          autoComplete="one-time-code"
          required
          autoFocus
          value={code}
          fault={faultOf(step.error, "code")}
          onChange={(event) => setCode(event.target.value)}
        />
      </DoorForm>
      <button type="button" className="act mt-3 justify-self-start" onClick={onBack}>
        Back
      </button>
    </Door>
  );
}
