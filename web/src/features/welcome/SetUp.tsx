import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas } from "../../api/client";
import { me } from "../../api/queries";
import { faultOf, TextField } from "../../ui/Field";
import { AccountForm } from "./Account";
import { Door } from "./Door";

/** There is no club here yet: whoever started the server opens it, with the code that stood there. */
export function SetUp() {
  const client = useQueryClient();
  const [code, setCode] = useState("");
  const [club, setClub] = useState("");
  const open = useMutation({
    mutationFn: (account: Schemas["Account"]) => need(api.POST("/api/set-up", { body: { ...account, code, club } })),
    onSuccess: (welcome) => client.setQueryData(me.queryKey, welcome),
  });
  return (
    <Door title="Open your hall" text="There is no club here yet. You become its owner, and invite the others.">
      <AccountForm
        word="Open the hall"
        fields={["code", "club"]}
        busy={open.isPending}
        error={open.error}
        onSubmit={(account) => open.mutate(account)}
      >
        <TextField
          label="Set-up code"
          hint="It stands where the server was started, and works once."
          required
          autoComplete="off"
          value={code}
          fault={faultOf(open.error, "code")}
          onChange={(event) => setCode(event.target.value)}
        />
        <TextField
          label="Name of the club"
          required
          maxLength={120}
          value={club}
          fault={faultOf(open.error, "club")}
          onChange={(event) => setClub(event.target.value)}
        />
      </AccountForm>
    </Door>
  );
}
