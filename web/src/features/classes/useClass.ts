import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, Refused, type Schemas } from "../../api/client";
import { classPlan } from "../../api/queries";
import { useStreamed } from "../../api/useStreamed";
import type { Asked, State } from "./plan";

const MOST_UNDONE = 60;

/** A class that is changed: solved around each change, saved, and taken back step by step. */
export function useClass(id: number) {
  const client = useQueryClient();
  const query = useQuery(classPlan(id));
  const solving = useStreamed<Schemas["ClassProgress"]>("/api/classes/solve", "Reading the class");
  const [past, setPast] = useState<State[]>([]);
  const [future, setFuture] = useState<State[]>([]);
  const [fault, setFault] = useState<Error | null>(null);
  const [saving, setSaving] = useState(false);
  const kept = query.data;

  const now = (): State | null => (kept?.answer ? { asked: kept.asked, rows: kept.answer.rows } : null);

  async function save(state: State): Promise<boolean> {
    const revision = client.getQueryData(classPlan(id).queryKey)?.revision ?? 0;
    setSaving(true);
    try {
      const body = { ...state, revision };
      const answer = await need(api.PUT("/api/classes/{class_id}", { params: { path: { class_id: id } }, body }));
      client.setQueryData(classPlan(id).queryKey, answer);
      for (const queryKey of [["today"], ["classes"]]) void askAnew(client, { queryKey });
      return true;
    } catch (error) {
      setFault(error as Error);
      if (error instanceof Refused && error.status === 409) void askAnew(client, classPlan(id));
      return false;
    } finally {
      setSaving(false);
    }
  }
  async function take(state: State) {
    const before = now();
    setFault(null);
    if (!(await save(state))) return;
    if (before) setPast((earlier) => [...earlier.slice(-MOST_UNDONE), before]);
    setFuture([]);
  }
  /** Another class is asked for: the rest is solved around it. */
  function change(asked: Asked) {
    setFault(null);
    solving.run({ asked, rows: kept?.answer?.rows ?? null }, (last) => {
      if (last.answer) void take({ asked, rows: last.answer.rows });
    });
  }
  async function step(from: State[], drop: () => void, give: (state: State) => void) {
    const to = from.at(-1);
    const before = now();
    if (!to) return;
    setFault(null);
    if (!(await save(to))) return;
    drop();
    if (before) give(before);
  }
  const undo = () =>
    step(
      past,
      () => setPast((all) => all.slice(0, -1)),
      (state) => setFuture((all) => [...all, state]),
    );
  const redo = () =>
    step(
      future,
      () => setFuture((all) => all.slice(0, -1)),
      (state) => setPast((all) => [...all, state]),
    );
  const busy = saving || solving.progress !== null;
  return {
    query,
    kept,
    solving,
    saving,
    busy,
    fault: fault ?? solving.error,
    change,
    take,
    undo: past.length && !busy ? () => void undo() : undefined,
    redo: future.length && !busy ? () => void redo() : undefined,
  };
}
