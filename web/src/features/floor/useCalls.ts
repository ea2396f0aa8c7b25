import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { retryWhileAway, runPlans } from "../../api/queries";

type Settings = Schemas["CallSettings"];

/** What is called in this session: changed at once, and kept with the session. */
export function useCalls(plan: Schemas["RunPlan"]) {
  const client = useQueryClient();
  const [settings, setSettings] = useState<Settings>(plan.call_settings);
  const save = useMutation({
    retry: retryWhileAway,
    scope: { id: `calls ${plan.session_id}` },
    mutationFn: (body: Settings) => {
      const params = { path: { session_id: plan.session_id ?? 0 } };
      return need(api.PUT("/api/sessions/{session_id}/calls", { params, body }));
    },
    // How often a combination is said changes the plan itself.
    onSuccess: () => askAnew(client, { queryKey: runPlans(plan.session_id ?? 0) }),
  });
  return {
    settings,
    failed: save.error?.message ?? null,
    set: (change: Partial<Settings>) => {
      const next = { ...settings, ...change };
      setSettings(next);
      // A run whose session is gone keeps them to itself.
      if (plan.session_id !== null) save.mutate(next);
    },
  };
}
