import { useMutation, useQueryClient } from "@tanstack/react-query";
import { askAnew } from "./askAnew";
import { api, need, type Schemas } from "./client";
import { me } from "./queries";

/** A setting of the club that everything may depend on: all that was asked is asked anew. */
export function useClubSetting() {
  const client = useQueryClient();
  return useMutation({
    // One after the other: an answer tells the whole club, and an earlier one must not come last.
    scope: { id: "club" },
    mutationFn: (body: Schemas["ClubIn"]) => need(api.PUT("/api/club", { body })),
    onSuccess: (welcome) => {
      client.setQueryData(me.queryKey, welcome);
      return askAnew(client, { predicate: (query) => query.queryKey[0] !== "me" });
    },
  });
}
