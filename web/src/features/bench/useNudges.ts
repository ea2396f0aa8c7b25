import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { nudges as nudgesQuery } from "../../api/queries";
import { useSettled } from "../../ui/useSettled";

const PAUSE_MS = 600;

/** The small changes for what lies on the bench, once it has not changed for a moment. */
export function useNudges(asked: Schemas["NudgeIn"], enabled = true) {
  return useQuery({ ...nudgesQuery(useSettled(asked, PAUSE_MS)), enabled });
}
