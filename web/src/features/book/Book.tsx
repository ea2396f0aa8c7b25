import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { combinations as combinationsQuery, me as meQuery, vocabulary as vocabularyQuery } from "../../api/queries";
import { useClubSetting } from "../../api/useClubSetting";
import { once } from "../../domain/once";
import { Notice } from "../../ui/Notice";
import { Shelves } from "../../ui/Shelves";
import { find } from "./find";
import { Maker } from "./Maker";
import { pageOf, useMaker, useToBench } from "./useMaker";

type Entry = Schemas["EntryOut"];

/** The club's book of combinations: read and counted as they are typed, kept, found, and put on the Bench. */
export function Book() {
  const query = useQuery(combinationsQuery);
  const vocabulary = useQuery(vocabularyQuery);
  const maker = useMaker();
  const toBench = useToBench();
  const [search, setSearch] = useState("");
  const [bag, setBag] = useState("");
  const { remove, bringBack, gone } = useRemoving();
  if (!query.data || !vocabulary.data) {
    return <Notice asked={query} title="Opening the book" />;
  }
  const found = find(query.data, search, bag);
  const bags = [...new Set(query.data.flatMap((entry) => entry.drill.whole.suits))];
  const open = (entry: Entry) => {
    maker.edit(pageOf(entry));
    window.scrollTo({ top: 0 });
    document.querySelector<HTMLInputElement>("[data-combination]")?.focus();
  };
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="flex flex-wrap items-end justify-between gap-3 pb-3">
        <div>
          <h1>Combinations</h1>
          <Shelves />
          <p className="quiet">
            The club's book, in the club's numbers: 1 jab, 2 cross, 3 and 4 hooks, 5 and 6 uppercuts
          </p>
        </div>
        <School schools={vocabulary.data.schools} />
      </header>
      <Maker maker={maker} toBench={toBench} tempos={vocabulary.data.tempos} />
      <div className="flex flex-wrap items-end gap-3 border-b border-[var(--ink)] pt-5 pb-3">
        <label className="label-text min-w-[220px] flex-1">
          <span className="block pb-1">Search: a name, a tag, a technique</span>
          <input
            type="search"
            className="field"
            value={search}
            placeholder="hook, kicks, defence …"
            onChange={(event) => setSearch(event.target.value)}
          />
        </label>
        <label className="label-text">
          <span className="block pb-1">For</span>
          <select className="field cursor-pointer" value={bag} onChange={(event) => setBag(event.target.value)}>
            <option value="">any bag</option>
            {bags.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        </label>
      </div>
      {gone && (
        <p role="status" className="flex flex-wrap items-center gap-3 border-b border-[var(--rule)] py-2">
          {gone.name} is deleted.
          <button type="button" className="act" disabled={bringBack.isPending} onClick={() => bringBack.mutate(gone)}>
            Undo
          </button>
        </p>
      )}
      {query.data.length === 0 ? (
        <Notice title="The book is empty" text="Type a combination above, give it a name, and keep it." />
      ) : found.length === 0 ? (
        <Notice title="Nothing in the book has all of this" text="Try fewer words, or any bag." />
      ) : (
        <ul aria-label="The book">
          {found.map((entry) => (
            <Row
              key={entry.id}
              entry={entry}
              onOpen={() => open(entry)}
              onTag={setSearch}
              onBench={() => toBench.mutate({ name: entry.name, text: entry.drill.text })}
              onRemove={() => remove.mutate(entry)}
            />
          ))}
        </ul>
      )}
    </main>
  );
}

function useRemoving() {
  const client = useQueryClient();
  const [gone, setGone] = useState<Entry | null>(null);
  const refresh = () => askAnew(client, { queryKey: combinationsQuery.queryKey });
  const remove = useMutation({
    mutationFn: (entry: Entry) =>
      need(api.DELETE("/api/combinations/{entry_id}", { params: { path: { entry_id: entry.id } } })),
    onSuccess: (_none, entry) => {
      setGone(entry);
      return refresh();
    },
  });
  const bringBack = useMutation({
    mutationFn: (entry: Entry) => {
      const { name, tags, note } = entry;
      const body = { name, tags, note, text: entry.drill.text };
      return once(["bring back", entry.id], (headers) => need(api.POST("/api/combinations", { body, headers })));
    },
    onSuccess: () => {
      setGone(null);
      return refresh();
    },
  });
  return { remove, bringBack, gone };
}

interface RowProps {
  entry: Entry;
  onOpen: () => void;
  onTag: (tag: string) => void;
  onBench: () => void;
  onRemove: () => void;
}

function Row({ entry, onOpen, onTag, onBench, onRemove }: RowProps) {
  const { whole } = entry.drill;
  return (
    <li className="grid items-center gap-x-6 gap-y-1 border-b border-[var(--rule)] py-[10px] min-[900px]:grid-cols-[1fr_1.3fr_auto]">
      <div>
        <h3>
          <button type="button" className="min-h-[26px] cursor-pointer text-left hover:underline" onClick={onOpen}>
            {entry.name}
          </button>
        </h3>
        <p className="flex flex-wrap gap-x-3 text-[13px]">
          {entry.tags.map((tag) => (
            <button
              key={tag}
              type="button"
              className="quiet min-h-[24px] cursor-pointer underline"
              onClick={() => onTag(tag)}
            >
              {tag}
            </button>
          ))}
        </p>
      </div>
      <div>
        <p className="text-[16px]">{entry.drill.text}</p>
        <p className="quiet text-[13px]">
          {whole.strikes} strikes, about {whole.pass_s.toFixed(1)} s{entry.note ? `. ${entry.note}` : ""}
        </p>
        {whole.against.length > 0 && (
          <p className="text-[13px]">
            <span className="seal light">Bag</span> not on {whole.against.map((each) => each.bag).join(", ")}
          </p>
        )}
      </div>
      <div className="flex gap-2">
        <button type="button" className="act" aria-label={`Put ${entry.name} on the Bench`} onClick={onBench}>
          To the Bench
        </button>
        <button type="button" className="act" aria-label={`Delete ${entry.name}`} onClick={onRemove}>
          Delete
        </button>
      </div>
    </li>
  );
}

/** Which punches 7 and 8 are, for the whole club. What is stored does not change. */
function School({ schools }: { schools: Schemas["Named"][] }) {
  const chosen = useQuery(meQuery).data?.school;
  const save = useClubSetting();
  return (
    <label className="label-text">
      <span className="block pb-1">Numbers of the club {save.isPending ? "…" : ""}</span>
      <select
        className="field cursor-pointer"
        value={chosen}
        disabled={save.isPending}
        onChange={(event) => save.mutate({ school: event.target.value as Schemas["ClubIn"]["school"] })}
      >
        {schools.map((school) => (
          <option key={school.id} value={school.id}>
            {school.name}
          </option>
        ))}
      </select>
    </label>
  );
}
