import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import {
  evaluation,
  session as sessionQuery,
  sessions as sessionsQuery,
  versions as versionsQuery,
} from "../../../api/queries";
import { Column, Columns } from "../../../charts/columns/Column";
import { type Drawn, drawnOf } from "../../../charts/columns/drawn";
import { Page } from "../../../charts/columns/Page";
import { type Draft, draftOf } from "../../../domain/session/draft";
import { when } from "../../../domain/time";
import { Choice } from "../../../ui/Choice";
import { differing } from "./differing";

interface Props {
  sessionId: number | null;
  draft: Draft;
  person: string;
  /** What is compared first: a version of this session, or nothing chosen yet. */
  first: string | null;
  onTake: (draft: Draft, said: string) => void;
  onClose: () => void;
}

const NOW = "now";

/** Any two sessions or versions side by side, worked out for the same person. */
export function Compare({ sessionId, draft, person, first, onTake, onClose }: Props) {
  const versions = useQuery({ ...versionsQuery(sessionId ?? 0), enabled: sessionId !== null });
  const sessions = useQuery(sessionsQuery);
  const before = versions.data?.[1] ?? versions.data?.[0];
  const other = sessions.data?.find((row) => row.id !== sessionId);
  const fallback =
    before && versions.data && versions.data.length > 1 ? `v${before.revision}` : other ? `s${other.id}` : NOW;
  const [sides, setSides] = useState<[string, string | null]>([NOW, first]);
  const chosen: [string, string] = [sides[0], sides[1] ?? fallback];

  const options = [
    { id: NOW, name: "On the bench now" },
    ...(versions.data ?? []).map((version) => ({
      id: `v${version.revision}`,
      name: `Saved ${when(version.saved_at)}${version.saved_by ? ` by ${version.saved_by}` : ""}`,
    })),
    ...(sessions.data ?? [])
      .filter((row) => row.id !== sessionId)
      .map((row) => ({ id: `s${row.id}`, name: row.title })),
  ];
  const others = useQueries({
    queries: chosen.map((id) => ({
      ...sessionQuery(Number(id.slice(1))),
      enabled: id.startsWith("s"),
      staleTime: 10_000,
    })),
  });
  const drafts = chosen.map((id, side): Draft | null => {
    if (id === NOW) return draft;
    const found = id.startsWith("v")
      ? versions.data?.find((version) => `v${version.revision}` === id)
      : others[side]?.data;
    return found ? draftOf(found) : null;
  });
  const worked = useQueries({
    queries: drafts.map((each) => ({
      ...evaluation({
        document: each?.document ?? draft.document,
        person_id: draft.personId,
        target: draft.target,
        wbgt_c: null,
        ranges: true,
      }),
      enabled: each !== null,
      placeholderData: undefined,
    })),
  });
  const drawn = worked.map((each, side): Drawn | null => {
    const found = drafts[side];
    return found && each.data ? drawnOf(found.document.title, each.data) : null;
  });
  const longest = Math.max(1, ...worked.map((each) => each.data?.total_s ?? 0));
  const [left, right] = drafts;
  const apart = left && right ? differing(left.document.parts, right.document.parts) : null;
  const waiting = drawn.some((each) => each === null) && !worked.some((each) => each.error);
  const refused = worked.find((each) => each.error)?.error?.message ?? null;
  return (
    <Page
      title="Side by side"
      under={
        <>
          both worked out for <b className="text-[var(--ink)]">{person}</b> and the purpose on the bench; the right is
          held against the left
        </>
      }
      said={refused ?? (waiting ? "Working them out …" : null)}
      onClose={onClose}
      limits={
        <fieldset className="flex flex-wrap gap-x-5 gap-y-2 pt-3">
          <legend className="sr-only">What is compared</legend>
          <Choice label="Left" value={chosen[0]} options={options} onChange={(id) => setSides([id, chosen[1]])} />
          <Choice label="Right" value={chosen[1]} options={options} onChange={(id) => setSides([chosen[0], id])} />
        </fieldset>
      }
    >
      <Columns count={2} dim={waiting}>
        {drawn.map((each, side) => {
          const found = drafts[side];
          const lines = worked[side]?.data?.parts ?? [];
          if (!each || !found) return <section key={side === 0 ? "left" : "right"} className="min-h-[400px] p-3" />;
          const isNow = chosen[side] === NOW;
          return (
            <Column
              key={side === 0 ? "left" : "right"}
              {...each}
              label={options.find((option) => option.id === chosen[side])?.name ?? ""}
              text={
                <ol>
                  {found.document.parts.map((part, index) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: parts have no other name
                    <li key={index} className="py-[2px]">
                      <span className="quiet font-normal">{part.name || "No name"}</span>{" "}
                      {apart?.[side === 0 ? "left" : "right"].has(index) ? (
                        <mark className="bg-transparent text-[var(--ink)] underline decoration-[var(--vermilion)] decoration-2 underline-offset-4">
                          {lines[index]?.text}
                        </mark>
                      ) : (
                        <span className="font-normal">{lines[index]?.text}</span>
                      )}
                    </li>
                  ))}
                </ol>
              }
              words={side === 0 ? "" : apart && apart.left.size + apart.right.size === 0 ? "The same parts." : ""}
              against={side === 1 ? (drawn[0]?.compared ?? null) : null}
              longest={longest}
            >
              {!isNow && (
                <button
                  type="button"
                  className="act self-start"
                  onClick={() =>
                    onTake(
                      { ...found, personId: draft.personId },
                      `${found.document.title} stands on the bench as it was. Ctrl Z brings back what was here.`,
                    )
                  }
                >
                  {chosen[side]?.startsWith("v") ? "Restore this version" : "Put this on the bench"}
                </button>
              )}
            </Column>
          );
        })}
      </Columns>
      <p className="quiet pt-3 text-[13px]">Underlined: parts that the other does not have just so.</p>
    </Page>
  );
}
