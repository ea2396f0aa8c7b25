import { useEffect, useRef, useState } from "react";
import { api, need, type Schemas, Unreachable } from "../../api/client";
import { type BoardIn, withRows } from "../../domain/clock/board";
import { planOf } from "../../domain/outbox/journal";

type Plan = Schemas["RunPlan"];
const AGAIN_MS = 3000;

/** The board of a class that runs: changed here at once, and told to the server, which answers with its calls. */
export function useBoard(plan: Plan, runId: string, onPlan: (plan: Plan) => void) {
  const [kept, setKept] = useState(true);
  const wanted = useRef<BoardIn | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const latest = useRef(plan);
  latest.current = plan;

  async function send() {
    const board = wanted.current;
    if (!board) return;
    const path = { run_id: runId };
    try {
      await need(api.PUT("/api/runs/{run_id}", { params: { path }, body: planOf(latest.current) }));
      const answer = await need(api.PUT("/api/runs/{run_id}/board", { params: { path }, body: board }));
      if (wanted.current !== board) return send();
      wanted.current = null;
      setKept(true);
      onPlan(answer);
    } catch (error) {
      // It stands on this device, and goes with the log whatever happens.
      if (error instanceof Unreachable) timer.current = setTimeout(() => void send(), AGAIN_MS);
      else wanted.current = null;
    }
  }
  function change(next: BoardIn) {
    const { board } = latest.current;
    if (!board) return;
    wanted.current = next;
    setKept(false);
    onPlan({ ...latest.current, board: withRows(board, next) });
    void send();
  }
  return { kept, change };
}
