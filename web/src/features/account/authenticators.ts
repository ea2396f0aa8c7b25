import { queryOptions } from "@tanstack/react-query";
import { door } from "../../api/door";

export interface Authenticator {
  type: "totp" | "recovery_codes" | "webauthn";
  id?: number;
  name?: string;
  created_at: number;
  unused_code_count?: number;
}

/** What somebody shows beside a password, or in its place. */
export const authenticators = queryOptions({
  queryKey: ["account", "authenticators"],
  queryFn: () => door<Authenticator[]>("GET", "account/authenticators"),
  staleTime: 0,
});
