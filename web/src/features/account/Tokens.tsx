import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { tokens as tokensQuery } from "../../api/queries";
import { day } from "../../domain/time";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { Sure } from "../../ui/Sure";
import { Tick } from "../../ui/Tick";
import { Part } from "./Part";

/** Keys for programs of one's own: made with scopes and an end, shown once. */
export function Tokens() {
  const client = useQueryClient();
  const query = useQuery(tokensQuery);
  const [name, setName] = useState("");
  const [scopes, setScopes] = useState<string[]>(["read-log"]);
  const [lastDay, setLastDay] = useState("");
  const refresh = () => askAnew(client, { queryKey: tokensQuery.queryKey });
  const make = useMutation({
    mutationFn: () => {
      const body = { name, scopes: scopes as Schemas["TokenIn"]["scopes"], last_day: lastDay };
      return need(api.POST("/api/tokens", { body }));
    },
    onSuccess: () => {
      setName("");
      return refresh();
    },
  });
  const { tokens = [], scopes: known = [] } = query.data ?? {};
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate();
  };
  return (
    <Part
      title="Tokens"
      text={
        <>
          For programs of your own, such as a board in the hall. What they can ask stands in{" "}
          <a className="link" href="/api/docs" target="_blank" rel="noreferrer">
            the description of the API
          </a>
          .
        </>
      }
      fault={query.error?.message ?? faultBeside(make.error, ["name", "last_day", "scopes"])}
    >
      <ul>
        {tokens.map((token) => (
          <Row key={token.id} token={token} onGone={refresh} />
        ))}
      </ul>
      {query.data && tokens.length === 0 && <p className="py-2">No token yet.</p>}
      <form onSubmit={submit} className="rule-t mt-2 grid max-w-[640px] gap-3 pt-3">
        <div className="grid items-start gap-3 min-[560px]:grid-cols-2">
          <TextField
            label="What it is for"
            required
            maxLength={60}
            value={name}
            fault={faultOf(make.error, "name")}
            onChange={(event) => setName(event.target.value)}
          />
          <TextField
            label="Its last day"
            hint="A year from now at the most."
            type="date"
            required
            value={lastDay}
            fault={faultOf(make.error, "last_day")}
            onChange={(event) => setLastDay(event.target.value)}
          />
        </div>
        <fieldset>
          <legend className="label-text">It may</legend>
          {known.map((scope) => (
            <Tick
              key={scope.id}
              label={`${scope.id}: ${scope.about}`}
              on={scopes.includes(scope.id)}
              onChange={(on) => setScopes(on ? [...scopes, scope.id] : scopes.filter((each) => each !== scope.id))}
            />
          ))}
        </fieldset>
        <button
          type="submit"
          className="act main justify-self-start"
          disabled={make.isPending || scopes.length === 0 || !lastDay}
        >
          {make.isPending ? "Making …" : "Make a token"}
        </button>
      </form>
      {make.data && (
        <div role="status" className="mt-3 border border-[var(--ink)] bg-[var(--sheet)] p-3">
          <p>
            <b>{make.data.name}</b>: copy it now. It is not shown again.
          </p>
          <input
            readOnly
            aria-label="The token"
            className="field mt-2 w-full"
            value={make.data.token}
            onFocus={(event) => event.target.select()}
          />
        </div>
      )}
    </Part>
  );
}

function Row({ token, onGone }: { token: Schemas["TokenOut"]; onGone: () => void }) {
  const takeBack = useMutation({
    mutationFn: () => need(api.DELETE("/api/tokens/{token_id}", { params: { path: { token_id: token.id } } })),
    onSuccess: onGone,
  });
  return (
    <li className="rule-t flex flex-wrap items-center gap-3 py-2">
      <span className="flex-1">
        {token.name} {token.over && <span className="seal light">Over</span>}
        <span className="quiet block text-[13px]">
          {token.scopes.join(", ")}, until {day(token.last_day)},{" "}
          {token.used_on ? `last used ${day(token.used_on)}` : "not used yet"}
        </span>
        {takeBack.error && <span role="alert">{takeBack.error.message}</span>}
      </span>
      <Sure
        word="Take back"
        label={`Take back ${token.name}`}
        yes="Yes, take it back"
        busy={takeBack.isPending}
        onSure={() => takeBack.mutate()}
      />
    </li>
  );
}
