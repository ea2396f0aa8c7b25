/** Passkeys, where the browser has them and the hall has a name: none is made for a bare number. */
export const hasPasskeys = (): boolean =>
  typeof PublicKeyCredential !== "undefined" &&
  "parseCreationOptionsFromJSON" in PublicKeyCredential &&
  !/^[\d.]+$|:/.test(window.location.hostname);

/** A new key of this device, as the server reads it. */
export async function makePasskey(options: PublicKeyCredentialCreationOptionsJSON): Promise<object> {
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(options);
  const made = (await navigator.credentials.create({ publicKey })) as PublicKeyCredential | null;
  if (!made) throw new Error("No passkey was made.");
  return made.toJSON();
}

/** What a key of this device says to the server's question. */
export async function askPasskey(options: PublicKeyCredentialRequestOptionsJSON): Promise<object> {
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(options);
  const said = (await navigator.credentials.get({ publicKey })) as PublicKeyCredential | null;
  if (!said) throw new Error("No passkey was chosen.");
  return said.toJSON();
}
