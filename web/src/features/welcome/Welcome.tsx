import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, need } from "../../api/client";
import { retryWhileAway } from "../../api/queries";

/** The door: sign in, or one click into the demo. */
export function Welcome({ demo }: { demo: boolean }) {
  const client = useQueryClient();
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const entered = (welcome: unknown) => client.setQueryData(["me"], welcome);
  const signIn = useMutation({
    mutationFn: () => need(api.POST("/api/sign-in", { body: { username, password } })),
    onSuccess: entered,
    retry: retryWhileAway,
  });
  const enterDemo = useMutation({ mutationFn: () => need(api.POST("/api/demo")), onSuccess: entered });
  const busy = signIn.isPending || enterDemo.isPending;
  const away = signIn.failureCount + enterDemo.failureCount > 0 && busy;
  const refused = signIn.error ?? enterDemo.error;

  function submit(event: FormEvent) {
    event.preventDefault();
    signIn.mutate();
  }
  return (
    <main className="mx-auto grid min-h-dvh max-w-[420px] content-center px-4 py-10">
      <img src="/icon.svg" width={56} height={56} alt="" />
      <h1 className="mt-5">Yoisho</h1>
      <p className="quiet">Say what a striking session is for. See what it does. Run it, and log it.</p>
      {demo && (
        <button type="button" className="act main mt-7 min-h-[48px]" disabled={busy} onClick={() => enterDemo.mutate()}>
          {enterDemo.isPending ? "Opening the hall …" : "Enter as the demo coach"}
        </button>
      )}
      <form onSubmit={submit} className="mt-7 grid gap-3 ink-t pt-5">
        <h2>Sign in to your club</h2>
        <label className="label-text">
          E-mail address
          <input
            className="field mt-1"
            autoComplete="username"
            required
            value={username}
            onChange={(event) => setUsername(event.target.value)}
          />
        </label>
        <label className="label-text">
          Password
          <input
            className="field mt-1"
            type="password"
            autoComplete="current-password"
            required
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
        </label>
        <button type="submit" className="act" disabled={busy}>
          {signIn.isPending ? "Signing in …" : "Sign in"}
        </button>
        <p role="alert" className="min-h-[20px]">
          {away ? "No connection. Trying again every two seconds." : refused?.message}
        </p>
      </form>
    </main>
  );
}
