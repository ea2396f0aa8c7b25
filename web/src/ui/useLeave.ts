import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need } from "../api/client";

/** Signs out, and forgets what this member has seen. */
export function useLeave() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => need(api.POST("/api/sign-out")),
    onSuccess: (welcome) => {
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
      client.setQueryData(["me"], welcome);
      if ("caches" in globalThis) void caches.delete("yoisho-runs");
    },
  });
}
