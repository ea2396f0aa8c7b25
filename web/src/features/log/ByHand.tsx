import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type KeyboardEvent, useRef, useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { groups as groupsQuery, people as peopleQuery, vocabulary } from "../../api/queries";
import { once } from "../../domain/once";
import { faultOf, SelectField, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { RPE_WORDS } from "../../ui/rpe";
import { Sheet } from "../../ui/Sheet";

type Body = Schemas["ByHandIn"];

const pad = (value: number): string => String(value).padStart(2, "0");
/** Now, as a field for a day and an hour has it. */
function nowHere(): string {
  const now = new Date();
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}T${pad(now.getHours())}:${pad(now.getMinutes())}`;
}

/** A session that was not planned here: what was done, or just for how long, and how hard it was for each. */
export function ByHand({ onDone, onClose }: { onDone: (logged: number) => void; onClose: () => void }) {
  const client = useQueryClient();
  const people = useQuery(peopleQuery).data ?? [];
  const groups = useQuery(groupsQuery).data ?? [];
  const purposes = useQuery(vocabulary).data?.targets ?? [];
  const [text, setText] = useState("");
  const [minutes, setMinutes] = useState("");
  const [purpose, setPurpose] = useState("");
  const [at, setAt] = useState(nowHere);
  const [group, setGroup] = useState("");
  const [ratings, setRatings] = useState<Readonly<Record<number, number>>>({});
  const shown = group ? people.filter((person) => person.groups.includes(Number(group))) : people;
  const rated = Object.entries(ratings).map(([id, rpe]) => ({ person_id: Number(id), rpe }));
  const log = useMutation({
    mutationFn: () => {
      const body: Body = {
        text,
        minutes: minutes.trim() ? Number(minutes) : null,
        purpose: (purpose || purposes[0]?.id || "") as Body["purpose"],
        started_at: new Date(at).toISOString(),
        rated,
      };
      return once(["by hand", body], (headers) => need(api.POST("/api/by-hand", { body, headers })));
    },
    onSuccess: async ({ logged }) => {
      await askAnew(client, { queryKey: ["log"] });
      onDone(logged);
    },
  });
  const fault = (field: string) => faultOf(log.error, field);
  const rate = (id: number, rpe: number | null) =>
    setRatings(({ [id]: _, ...others }) => (rpe === null ? others : { ...others, [id]: rpe }));
  return (
    <Sheet label="Log without a run" className="w-[min(620px,calc(100vw-32px))]" onClose={onClose}>
      <form
        className="grid gap-4"
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          log.mutate();
        }}
      >
        <h2>Log without a run</h2>
        <TextField
          label="What was done, as a line"
          hint="Such as 3 x 3:00 combination rest 1:00. Leave it open where only the minutes are known."
          value={text}
          disabled={minutes.trim() !== ""}
          fault={fault("text")}
          onChange={(event) => setText(event.target.value)}
        />
        <div className="grid items-start gap-4 min-[480px]:grid-cols-3">
          <TextField
            label="Or just minutes"
            inputMode="numeric"
            pattern="[0-9]{1,3}"
            value={minutes}
            disabled={text.trim() !== ""}
            fault={fault("minutes")}
            onChange={(event) => setMinutes(event.target.value)}
          />
          <SelectField
            label="Purpose"
            value={purpose || (purposes[0]?.id ?? "")}
            options={purposes}
            onChange={setPurpose}
          />
          <TextField
            label="Began"
            type="datetime-local"
            required
            value={at}
            fault={fault("started_at")}
            onChange={(event) => setAt(event.target.value)}
          />
        </div>
        <SelectField
          label="Show"
          value={group}
          none="everybody"
          options={groups.map(({ id, name }) => ({ id: String(id), name }))}
          onChange={setGroup}
        />
        <Ratings people={shown} ratings={ratings} onRate={rate} />
        <FormEnd
          word={rated.length === 0 ? "Log it" : `Log it for ${rated.length}`}
          busyWord="Logging …"
          busy={log.isPending}
          off={rated.length === 0 || (text.trim() === "" && minutes.trim() === "")}
          error={log.error}
          fields={["text", "minutes", "started_at"]}
          onClose={onClose}
        />
      </form>
    </Sheet>
  );
}

interface RatingsProps {
  people: readonly { id: number; name: string }[];
  ratings: Readonly<Record<number, number>>;
  onRate: (id: number, rpe: number | null) => void;
}

/** How hard it was for each, down the list: a figure goes on to the next, T is ten, an arrow leaves somebody out. */
function Ratings({ people, ratings, onRate }: RatingsProps) {
  const list = useRef<HTMLUListElement>(null);
  const go = (from: HTMLInputElement, by: number) => {
    const all = [...(list.current?.querySelectorAll("input") ?? [])];
    all[all.indexOf(from) + by]?.focus();
  };
  const press = (event: KeyboardEvent<HTMLInputElement>, id: number) => {
    const { key, currentTarget } = event;
    if (event.ctrlKey || event.metaKey) return;
    if (/^\d$/.test(key) || key === "t") onRate(id, key === "t" ? 10 : Number(key));
    else if (key === "Backspace" || key === "Delete") onRate(id, null);
    else if (key !== "ArrowDown" && key !== "ArrowUp" && key !== "Enter") return;
    event.preventDefault();
    if (key !== "Backspace" && key !== "Delete") go(currentTarget, key === "ArrowUp" ? -1 : 1);
  };
  if (people.length === 0) return <p className="quiet">Nobody on the roster yet.</p>;
  return (
    <fieldset>
      <legend className="label-text pb-1">How hard was it, 0 to 10? Left open, they were not there. T is ten.</legend>
      <ul ref={list} className="max-h-[260px] overflow-y-auto border border-[var(--rule)] px-3">
        {people.map(({ id, name }) => {
          const rpe = ratings[id];
          return (
            <li key={id} className="flex items-center gap-3 border-b border-[var(--rule)] py-1 last:border-b-0">
              <label className="flex flex-1 items-center justify-between gap-3">
                <span>{name}</span>
                <input
                  className="field h-[36px] w-[52px] text-center max-[899px]:h-[44px]"
                  inputMode="numeric"
                  value={rpe ?? ""}
                  onKeyDown={(event) => press(event, id)}
                  onChange={(event) => {
                    // A keyboard on glass tells no keys.
                    const told = event.target.value.trim();
                    if (told === "") onRate(id, null);
                    else if (/^(\d|10)$/.test(told)) onRate(id, Number(told));
                  }}
                />
              </label>
              <span className="quiet w-[120px] text-[13px]">{rpe === undefined ? "" : RPE_WORDS[rpe]}</span>
            </li>
          );
        })}
      </ul>
    </fieldset>
  );
}
