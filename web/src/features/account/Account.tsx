import { useQuery } from "@tanstack/react-query";
import { me } from "../../api/queries";
import { capital } from "../../ui/capital";
import { Address } from "./Address";
import { Passkeys } from "./Passkeys";
import { Password } from "./Password";
import { SecondStep } from "./SecondStep";
import { SignedIn } from "./SignedIn";
import { Tokens } from "./Tokens";

/** Somebody's own account: how they sign in, and where they are. */
export function Account() {
  const welcome = useQuery(me).data;
  return (
    <main className="max-w-[900px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <h1>{welcome?.coach}</h1>
      <p className="quiet pb-3">
        {capital(welcome?.role ?? "")} at {welcome?.club}. How you sign in, and where you are
      </p>
      {welcome?.password ? (
        <>
          <Address />
          <Password />
          <SecondStep />
          <Passkeys />
        </>
      ) : (
        <p className="ink-t py-3">
          The demo coach comes in by one click, and has no address and no password to change. Invite yourself on the
          page of the club to try an account of your own.
        </p>
      )}
      <SignedIn />
      <Tokens />
    </main>
  );
}
