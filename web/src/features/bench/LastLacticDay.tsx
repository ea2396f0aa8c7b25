import { useQuery } from "@tanstack/react-query";
import { me } from "../../api/queries";
import { useClubSetting } from "../../api/useClubSetting";
import { Choice } from "../../ui/Choice";

const DAYS = [7, 8, 9, 10, 11, 12, 13, 14].map((days) => ({ id: String(days), name: `${days} days before` }));

/** On which day before a bout the club's school puts the last hard lactic day; the coach can set it here. */
export function LastLacticDay() {
  const days = useQuery(me).data?.last_lactic_days;
  const save = useClubSetting();
  if (days === undefined) return null;
  return (
    <div className="no-print pt-1">
      <Choice
        label={`The club's last hard lactic day${save.isPending ? " …" : ""}`}
        value={String(days)}
        options={DAYS}
        onChange={(chosen) => save.mutate({ last_lactic_days: Number(chosen) })}
      />
      {save.error && <span role="alert">{save.error.message}</span>}
    </div>
  );
}
