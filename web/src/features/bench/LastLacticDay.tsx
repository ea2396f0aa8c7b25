import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need } from "../../api/client";
import { me as meQuery } from "../../api/queries";
import { Choice } from "../../ui/Choice";

const DAYS = [7, 8, 9, 10, 11, 12, 13, 14].map((days) => ({ id: String(days), name: `${days} days before` }));

/** On which day before a bout the club's school puts the last hard lactic day; the coach can set it here. */
export function LastLacticDay() {
  const client = useQueryClient();
  const days = useQuery(meQuery).data?.last_lactic_days;
  const save = useMutation({
    mutationFn: (last_lactic_days: number) => need(api.PUT("/api/club", { body: { last_lactic_days } })),
    onSuccess: (welcome) => {
      client.setQueryData(meQuery.queryKey, welcome);
      return client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "me" });
    },
  });
  if (days === undefined) return null;
  return (
    <div className="no-print pt-1">
      <Choice
        label={`The club's last hard lactic day${save.isPending ? " …" : ""}`}
        value={String(days)}
        options={DAYS}
        onChange={(chosen) => save.mutate(Number(chosen))}
      />
      {save.error && <span role="alert">{save.error.message}</span>}
    </div>
  );
}
