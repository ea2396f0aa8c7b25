import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { nudges as nudgesQuery } from "../../api/queries";
import { useSettled } from "../../ui/useSettled";

const PAUSE_MS = 600;

/**
 * The small changes for what lies on the bench, once it has not changed for a moment. Until then they are of what lay
 * here before, and none of them may take the place of what has been done since.
 */
export function useNudges(asked: Schemas["NudgeIn"], enabled = true) {
  const settled = useSettled(asked, PAUSE_MS);
  const query = useQuery({ ...nudgesQuery(settled), enabled });
  return { ...query, before: settled.document !== asked.document };
}
