import { useEffect, useRef } from "react";
import { useLocation, useNavigate } from "react-router";
import { laid, type ToLay } from "../../domain/session/toLay";
import type { Bench } from "./useBench";

/** What another place has brought along is laid on the bench, once. */
export function useBrought(bench: Bench, choose: (row: number, open: boolean) => void, say: (words: string) => void) {
  const place = useLocation();
  const navigate = useNavigate();
  const brought = useRef((place.state as { lay?: ToLay } | null)?.lay ?? null);
  useEffect(() => {
    const lay = brought.current;
    if (!lay) return;
    brought.current = null;
    const next = laid(bench.draft, lay);
    bench.setTyped(null);
    bench.edit(next.draft);
    choose(next.row, true);
    say(lay.said);
    navigate(place.pathname, { replace: true, state: null });
  }, [bench, choose, say, navigate, place.pathname]);
}
