import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { door } from "../../api/door";
import { hasPasskeys, makePasskey } from "../../domain/device/passkeys";
import { when } from "../../domain/time";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { authenticators } from "./authenticators";
import { Part } from "./Part";
import { useCertain } from "./useCertain";

const KEY = authenticators.queryKey;
const PASSKEYS = "account/authenticators/webauthn";

interface Options {
  creation_options: { publicKey: PublicKeyCredentialCreationOptionsJSON };
}

async function add(name: string) {
  const { data } = await door<Options>("GET", `${PASSKEYS}?passwordless`);
  const credential = await makePasskey(data.creation_options.publicKey);
  return door("POST", PASSKEYS, { body: { name, credential } });
}

/** Devices that open the account by themselves: by finger, face or the device's own code. */
export function Passkeys() {
  const query = useQuery(authenticators);
  const [name, setName] = useState("");
  const make = useCertain(add, KEY, () => setName(""));
  const drop = useCertain((id: number) => door("DELETE", PASSKEYS, { body: { authenticators: [id] } }), KEY);
  const keys = (query.data?.data ?? []).filter((each) => each.type === "webauthn");
  function submit(event: FormEvent) {
    event.preventDefault();
    make.mutate(name);
  }
  return (
    <Part
      title="Passkeys"
      text="A device of yours opens the account by your finger, your face or its own code, without a password."
      fault={faultBeside(make.error ?? drop.error, ["name"])}
    >
      <ul>
        {keys.map((key) => (
          <li key={key.id} className="rule-t flex flex-wrap items-center gap-3 py-2">
            <span className="flex-1">
              {key.name} <span className="quiet">since {when(new Date(1000 * key.created_at).toISOString())}</span>
            </span>
            <button
              type="button"
              className="act"
              aria-label={`Remove: ${key.name}`}
              disabled={drop.isPending}
              onClick={() => drop.mutate(key.id as number)}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      {hasPasskeys() ? (
        <form onSubmit={submit} className="flex flex-wrap items-start gap-3 pt-2">
          <TextField
            label="Name of this device"
            required
            maxLength={100}
            value={name}
            fault={faultOf(make.error, "name")}
            onChange={(event) => setName(event.target.value)}
          />
          <button type="submit" className="act mt-[20px]" disabled={make.isPending}>
            {make.isPending ? "Waiting for the device …" : "Make a passkey"}
          </button>
        </form>
      ) : (
        <p className="pt-2">
          Not here: a passkey needs a browser that knows them, and a hall at an address with a name (https), not a
          number.
        </p>
      )}
      {make.asking}
      {drop.asking}
    </Part>
  );
}
