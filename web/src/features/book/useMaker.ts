import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, Refused, type Schemas } from "../../api/client";
import { combinations } from "../../api/queries";
import { once } from "../../domain/once";
import type { ToLay } from "../../domain/session/toLay";
import { useSettled } from "../../ui/useSettled";

export interface Page {
  id: number | null;
  name: string;
  text: string;
  tags: string;
  note: string;
}

export const BLANK: Page = { id: null, name: "", text: "1-2-3b, slip, 2", tags: "", note: "" };

type Around = Pick<Required<Schemas["ReadIn"]>, "stance" | "tempo" | "seconds">;

/** The page in hand, read as it is typed. */
export function useMaker() {
  const [page, setPage] = useState<Page>(BLANK);
  const [around, setAround] = useState<Around>({ stance: "orthodox", tempo: "combination", seconds: 180 });
  const asked = useSettled(page.text);
  const reading = useQuery({
    queryKey: ["combination", asked, around],
    queryFn: ({ signal }) => need(api.POST("/api/combinations/read", { body: { text: asked, ...around }, signal })),
    enabled: asked.trim() !== "",
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
  const client = useQueryClient();
  const refresh = () => askAnew(client, { queryKey: combinations.queryKey });

  const make = useMutation({
    mutationFn: ({ kind, counts }: { kind: Schemas["MakeIn"]["kind"]; counts: number[] }) =>
      need(api.POST("/api/combinations/make", { body: { kind, text: page.text, counts } })),
    onSuccess: (made) => setPage((before) => ({ ...before, text: made.text })),
  });
  const save = useMutation({
    mutationFn: () => {
      const tags = page.tags.split(",").map((tag) => tag.trim());
      const body = { name: page.name || page.text, text: page.text, tags: tags.filter(Boolean), note: page.note };
      return page.id === null
        ? once(["combination", body], (headers) => need(api.POST("/api/combinations", { body, headers })))
        : need(api.PUT("/api/combinations/{entry_id}", { params: { path: { entry_id: page.id } }, body }));
    },
    onSuccess: (entry) => {
      setPage(pageOf(entry));
      return refresh();
    },
  });
  return {
    page,
    around,
    drill: reading.data,
    refused: asked === page.text && reading.error instanceof Refused ? reading.error : null,
    away: reading.failureCount > 0 && !(reading.error instanceof Refused),
    edit: (change: Partial<Page>) => {
      make.reset();
      save.reset();
      setPage((before) => ({ ...before, ...change }));
    },
    setAround: (change: Partial<Around>) => setAround((before) => ({ ...before, ...change })),
    make,
    save,
  };
}

export function pageOf(entry: Schemas["EntryOut"]): Page {
  return { id: entry.id, name: entry.name, text: entry.drill.text, tags: entry.tags.join(", "), note: entry.note };
}

/** Takes a line of the notation to the Bench, as rounds of three minutes. */
export function useToBench() {
  const navigate = useNavigate();
  return useMutation({
    mutationFn: ({ text }: { name: string; text: string }) =>
      need(api.POST("/api/read", { body: { text: `3 x (3:00 combination [${text}]) rest 1:00` } })),
    onSuccess: (answer, { name }) => {
      const [read] = answer.parts;
      if (!read) return;
      const lay: ToLay = {
        kind: "part",
        part: { ...read, name },
        said: `${name} is on the bench. Ctrl Z takes it off.`,
      };
      navigate("/bench", { state: { lay } });
    },
  });
}
