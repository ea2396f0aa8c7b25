import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import type { Schemas } from "../../api/client";
import { type Board, boardIn } from "../../domain/clock/board";
import { type KeptRun, markLogged } from "../../domain/clock/keptRun";
import { recordOf } from "../../domain/clock/record";
import { played_s } from "../../domain/clock/run";
import { planOf } from "../../domain/outbox/journal";
import { sendAll } from "../../domain/outbox/outbox";
import { keepWritten, recallWritten, type Written } from "../../domain/outbox/written";
import { clock } from "../../domain/time";
import { RPE_WORDS } from "../../ui/rpe";

const LEVELS = Array.from({ length: 11 }, (_, rpe) => rpe);

/** The log of a whole class: how hard it was, down the list; whoever was not there is left out. */
export function ClassLog({ kept, board }: { kept: KeptRun; board: Board }) {
  const { plan, run } = kept;
  const client = useQueryClient();
  const navigate = useNavigate();
  const [told, setTold] = useState<Written[]>(() => board.people.map((_, place) => recallWritten(run.runId, place)));
  const [note, setNote] = useState(() => recallWritten(run.runId, board.people.length).note);
  const came = board.people.map((each) => each.row.some((station) => station !== "away"));
  const change = (place: number, part: Partial<Written>) => {
    const next = { ...(told[place] ?? recallWritten(run.runId, place)), ...part };
    keepWritten(run.runId, place, next);
    setTold((all) => all.map((each, at) => (at === place ? next : each)));
  };
  const there = (place: number) => came[place] && !told[place]?.absent;
  const places = board.people.map((_, place) => place);
  const rated = places.filter((place) => there(place) && told[place]?.rpe != null);
  const missing = places.filter((place) => there(place) && told[place]?.rpe == null);
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const { played, stood, counted } = recordOf(run, [], 0, undefined);
      const body: Schemas["ClassLogIn"] = {
        run: planOf(plan),
        board: boardIn(board),
        started_at: run.startedAt ?? new Date().toISOString(),
        played,
        stood: stood ?? [],
        counted: counted ?? [],
        note,
        people: places.map((place) => ({
          place,
          rpe: there(place) ? (told[place]?.rpe ?? null) : null,
          absent: !there(place),
          note: told[place]?.note ?? "",
        })),
      };
      const path = `/api/runs/${run.runId}/class-log`;
      const letter = { key: `class log ${run.runId}`, path, body, title: plan.title, runId: run.runId, entry: true };
      for (const outcome of await sendAll([letter])) {
        if (outcome.kind === "refused") throw new Error(outcome.message);
      }
    },
    onSuccess: () => {
      markLogged(run.runId, true);
      void askAnew(client, { queryKey: ["log"] });
      navigate("/log", { replace: true });
    },
  });
  const expected = Math.round(plan.expected_rpe);
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-start justify-between gap-3 pb-3">
        <div>
          <h1 className="[overflow-wrap:anywhere]">{plan.title}, done</h1>
          <p className="quiet">
            {clock(played_s(run))} of {clock(plan.total_s)},{" "}
            {new Date(run.startedAt ?? 0).toLocaleString([], { dateStyle: "long", timeStyle: "short" })}. Ask 10 to 30
            minutes after. We expected {expected}, {RPE_WORDS[expected]}.
          </p>
        </div>
        <button
          type="button"
          className="act main"
          disabled={rated.length === 0 || save.isPending}
          onClick={() => save.mutate()}
        >
          {save.isPending ? "Saving …" : `Save ${rated.length} of ${places.filter(there).length}`}
        </button>
      </header>
      {save.error && (
        <p role="alert" className="flex gap-3 border-b border-[var(--rule)] py-2">
          <span className="seal self-start">Stopped</span>
          {save.error.message}
        </p>
      )}
      <ul className="ink-t" aria-label="How hard was it, for each">
        {board.people.map((each, place) => (
          <li
            key={`${each.name} ${each.person_id}`}
            className="rule-t grid items-center gap-x-4 gap-y-1 py-[5px] first:border-t-0 min-[900px]:grid-cols-[180px_1fr_90px_minmax(120px,220px)]"
          >
            <span className={there(place) ? "font-semibold" : "quiet line-through"}>{each.name}</span>
            <fieldset className="flex flex-wrap" disabled={!there(place)}>
              <legend className="sr-only">How hard was it, {each.name}?</legend>
              {LEVELS.map((rpe) => (
                <label
                  key={rpe}
                  title={RPE_WORDS[rpe]}
                  className={`flex h-[34px] min-w-[28px] flex-1 cursor-pointer items-center justify-center border border-l-0 border-[var(--ink)] text-[14px] font-semibold first-of-type:border-l has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-offset-2 max-[899px]:h-[44px] ${
                    told[place]?.rpe === rpe && there(place)
                      ? "bg-[var(--ink)] text-[var(--sheet)]"
                      : "bg-[var(--sheet)]"
                  } ${there(place) ? "" : "border-dashed opacity-50"}`}
                >
                  <input
                    type="radio"
                    className="sr-only"
                    name={`rpe ${place}`}
                    value={rpe}
                    aria-label={`${rpe}, ${RPE_WORDS[rpe]}`}
                    checked={told[place]?.rpe === rpe}
                    onChange={() => change(place, { rpe })}
                  />
                  {rpe}
                </label>
              ))}
            </fieldset>
            {came[place] ? (
              <label className="flex min-h-[34px] items-center gap-2 max-[899px]:min-h-[44px]">
                <input
                  type="checkbox"
                  checked={!told[place]?.absent}
                  onChange={(event) => change(place, { absent: !event.target.checked })}
                />
                was there
              </label>
            ) : (
              <span className="quiet text-[13px]">did not come</span>
            )}
            <input
              className="field"
              aria-label={`Note on ${each.name}`}
              placeholder="note"
              maxLength={1000}
              disabled={!there(place)}
              value={told[place]?.note ?? ""}
              onChange={(event) => change(place, { note: event.target.value })}
            />
          </li>
        ))}
      </ul>
      <label className="block pt-3">
        <span className="label-text block pb-1">Note on the class</span>
        <textarea
          className="field min-h-[70px]"
          maxLength={1000}
          value={note}
          onChange={(event) => {
            setNote(event.target.value);
            keepWritten(run.runId, board.people.length, {
              ...recallWritten(run.runId, board.people.length),
              note: event.target.value,
            });
          }}
        />
      </label>
      <p className="quiet pt-2 text-[13px]" role="status">
        {missing.length > 0
          ? `Not rated yet, so not logged: ${missing.map((place) => board.people[place]?.name).join(", ")}.`
          : "Everybody who was there is rated."}{" "}
        Strikes and load are worked out for each from what they were at. The club's coaches can read notes. Leave
        medical detail out.
      </p>
    </main>
  );
}
