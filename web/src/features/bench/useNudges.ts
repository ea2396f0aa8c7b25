import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { nudges as nudgesQuery } from "../../api/queries";
import { useSettled } from "../../ui/useSettled";

const PAUSE_MS = 600;

/**
 * The small changes for what lies on the bench, asked for once it has not changed for a moment; an edit lets go of those
 * that are still being tried. Until its own have come they are of what lay here before, and none of them may take the
 * place of what has been done since.
 */
export function useNudges(asked: Schemas["NudgeIn"], enabled: boolean) {
  const settled = useSettled(asked, PAUSE_MS);
  const { data, error, isPending, isPlaceholderData } = useQuery({
    ...nudgesQuery(asked),
    enabled: enabled && settled === asked,
  });
  return { data, error, isPending, before: isPlaceholderData };
}

export type Nudged = ReturnType<typeof useNudges>;
