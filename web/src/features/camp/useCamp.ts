import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, Refused, Unreachable } from "../../api/client";
import { camp as campQuery } from "../../api/queries";
import { type Camp, type State, stateOf, withState } from "./plan";

const AGAIN_MS = 2000;
const MOST_UNDONE = 60;

interface Wanted {
  state: State;
  solved: { bound_gap: number | null } | null;
}

/**
 * A camp that is pushed about: drawn at once, sent one change after the other, and taken back step by step. What is
 * refused goes back to how it stands on the server, with the reason.
 */
export function useCamp(id: number) {
  const client = useQueryClient();
  const query = useQuery(campQuery(id));
  const server = query.data;
  const [shown, setShown] = useState<State | null>(null);
  const [past, setPast] = useState<State[]>([]);
  const [future, setFuture] = useState<State[]>([]);
  const [fault, setFault] = useState<Error | null>(null);
  const [away, setAway] = useState(false);
  const wanted = useRef<Wanted | null>(null);
  const sending = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);

  async function pump() {
    const next = wanted.current;
    const known = client.getQueryData(campQuery(id).queryKey);
    if (sending.current || !next || !known) return;
    sending.current = true;
    wanted.current = null;
    const { state, solved } = next;
    const body = { ...state, revision: known.revision, solved: solved !== null, bound_gap: solved?.bound_gap ?? null };
    try {
      const answer = await need(api.PUT("/api/camps/{camp_id}", { params: { path: { camp_id: id } }, body }));
      client.setQueryData(campQuery(id).queryKey, answer);
      setAway(false);
      if (!wanted.current) setShown(null);
      for (const queryKey of [["today"], ["camps"], ["camp", id, "nudges"]]) void askAnew(client, { queryKey });
    } catch (error) {
      if (error instanceof Unreachable) {
        // It is tried again for as long as it takes; a later change goes in its place.
        wanted.current ??= next;
        setAway(true);
        timer.current = setTimeout(() => void pump(), AGAIN_MS);
        sending.current = false;
        return;
      }
      wanted.current = null;
      setShown(null);
      setFault(error as Error);
      setPast((before) => before.slice(0, -1));
      if (error instanceof Refused && error.status === 409) void askAnew(client, campQuery(id));
    }
    sending.current = false;
    void pump();
  }

  const drawn: Camp | undefined = server && shown ? withState(server, shown) : server;
  const current = (): State | null => shown ?? (server ? stateOf(server) : null);

  function put(state: State, solved: Wanted["solved"] = null) {
    setFault(null);
    setShown(state);
    wanted.current = { state, solved };
    void pump();
  }
  /** A change, that can be taken back. */
  function change(next: State | ((state: State) => State), solved: Wanted["solved"] = null) {
    const before = current();
    if (!before) return;
    const state = typeof next === "function" ? next(before) : next;
    if (state === before) return;
    setPast([...past.slice(-MOST_UNDONE), before]);
    setFuture([]);
    put(state, solved);
  }
  function step(from: State[], take: (rest: State[]) => void, give: (state: State) => void) {
    const to = from.at(-1);
    const now = current();
    if (!to || !now) return;
    take(from.slice(0, -1));
    give(now);
    put(to);
  }
  const undo = () => step(past, setPast, (state) => setFuture([...future, state]));
  const redo = () => step(future, setFuture, (state) => setPast([...past, state]));
  return {
    query,
    camp: drawn,
    /** Whether what is drawn is not saved yet. */
    waiting: shown !== null,
    away,
    fault,
    change,
    undo: past.length ? undo : undefined,
    redo: future.length ? redo : undefined,
  };
}
