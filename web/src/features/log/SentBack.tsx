import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { people as peopleQuery, sentBack as sentBackQuery } from "../../api/queries";
import { nameAndSport } from "../../domain/person";
import { clock, when } from "../../domain/time";
import { Choice } from "../../ui/Choice";
import { RPE_WORDS } from "../../ui/rpe";
import { Sure } from "../../ui/Sure";

type Sent = Schemas["SentBackOut"];

/** What athletes have sent by a link: it waits here until it is taken into the log, or thrown away. */
export function SentBack() {
  const waiting = useQuery(sentBackQuery).data ?? [];
  const people = useQuery(peopleQuery).data ?? [];
  if (waiting.length === 0) return null;
  const options = people.map((person) => ({ id: String(person.id), name: nameAndSport(person) }));
  return (
    <section aria-label="From athletes" className="mb-4 border border-[var(--rule)] bg-[var(--sheet)] px-4 py-3">
      <h2>From athletes</h2>
      <p className="quiet text-[13px]">Sent by a link. Nothing of it counts before it is taken into the log.</p>
      <ul>
        {waiting.map((sent) => (
          <Row key={sent.id} sent={sent} options={options} />
        ))}
      </ul>
    </section>
  );
}

function Row({ sent, options }: { sent: Sent; options: { id: string; name: string }[] }) {
  const client = useQueryClient();
  const [who, setWho] = useState(String(sent.person_id ?? ""));
  const done = async () => {
    for (const queryKey of [sentBackQuery.queryKey, ["log"], ["today"]]) await askAnew(client, { queryKey });
  };
  const params = { path: { sent_id: sent.id } };
  const take = useMutation({
    mutationFn: () => need(api.POST("/api/sent-back/{sent_id}/take", { params, body: { person_id: Number(who) } })),
    onSuccess: done,
  });
  const drop = useMutation({
    mutationFn: () => need(api.DELETE("/api/sent-back/{sent_id}", { params })),
    onSuccess: done,
  });
  const error = take.error ?? drop.error;
  return (
    <li className="rule-t mt-2 flex flex-wrap items-end justify-between gap-x-6 gap-y-2 pt-2">
      <div>
        <h3>{sent.title}</h3>
        <p className="text-[13px]">
          <span className="seal light">From the athlete</span> {sent.name || "no name given"}, {when(sent.started_at)}:{" "}
          {clock(sent.done_s)} of {clock(sent.total_s)}, {sent.done_efforts} of {sent.efforts} efforts, {sent.rpe}{" "}
          {RPE_WORDS[sent.rpe]}
          {sent.heart > 0 && `, ${sent.heart} heart rates`}
        </p>
        {sent.note && <p className="text-[13px]">“{sent.note}”</p>}
        {error && <p role="alert">{error.message}</p>}
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <Choice label="It was" value={who} none="choose who" options={options} onChange={setWho} />
        <button type="button" className="act main" disabled={!who || take.isPending} onClick={() => take.mutate()}>
          {take.isPending ? "Taking …" : "Take into the log"}
        </button>
        <Sure word="Throw away" yes="Yes, throw it away" busy={drop.isPending} onSure={() => drop.mutate()} />
      </div>
    </li>
  );
}
