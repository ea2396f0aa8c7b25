import { useQuery, useQueryClient } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { askAnew } from "../../api/askAnew";
import type { Schemas } from "../../api/client";
import { api, need } from "../../api/client";
import { learned as learnedQuery } from "../../api/queries";
import { useTicked } from "../../ui/useTicked";

type Learnt = Schemas["Learnt"];
const WIDTH = 84;
const FIRST = ["vo2max_ml_kg_min", "lactic_capacity_ml_kg", "sprint_capacity_ml_kg", "speed_scale", "demand"];

/** What somebody's logs have taught: before in grey, after in ink. */
export function Learned({ personId }: { personId: number }) {
  const client = useQueryClient();
  const query = useQuery({
    ...learnedQuery(personId),
    // It is worked out beside the requests.
    refetchInterval: ({ state }) => (state.data?.working ? 3000 : false),
  });
  const data = query.data;
  const used = useTicked(data?.on ?? true, async (on) => {
    await need(api.PUT("/api/people/{person_id}/learned", { params: { path: { person_id: personId } }, body: { on } }));
    await askAnew(client, {});
  });
  return (
    <section aria-label="Learned" className="mt-5 border-t border-[var(--rule)] pt-4">
      <h2>{data?.logs ? `Learned from ${data.logs} ${data.logs === 1 ? "log" : "logs"}` : "Learned"}</h2>
      {query.error ? (
        <p role="alert" className="pt-1 text-[13px]">
          {query.error.message}
        </p>
      ) : !data ? (
        <p role="status" className="quiet pt-1 text-[13px]">
          Reading …
        </p>
      ) : data.logs === 0 ? (
        <p className="quiet pt-1 text-[13px]">
          {data.working ? "It is being worked out." : "Nothing yet: it begins with the first log."}
        </p>
      ) : (
        <>
          {data.working && (
            <p role="status" className="quiet pt-1 text-[13px]">
              Something has changed: it is being worked out anew.
            </p>
          )}
          <Rows data={data} which={(id) => FIRST.includes(id)} />
          <details>
            <summary className="link cursor-pointer py-1 text-[13px]">All that is learned</summary>
            <Rows data={data} which={(id) => !FIRST.includes(id)} />
          </details>
          <Forecasts data={data} />
          <p className="quiet text-[12px]">
            Grey: before. Ink: after; 80 % ranges. In the engine's own terms. Any log can be left out, on its page.
          </p>
        </>
      )}
      {data && (
        <label className="flex min-h-[44px] cursor-pointer items-center gap-2 text-[13px] print:hidden">
          <input
            type="checkbox"
            className="checkbox"
            checked={used.ticked}
            disabled={used.waiting}
            onChange={({ target }) => used.tick(target.checked)}
          />
          Use it, wherever this person is judged
        </label>
      )}
      {used.error && <p role="alert">{used.error.message}</p>}
    </section>
  );
}

function Rows({ data, which }: { data: Schemas["LearnedOut"]; which: (id: string) => boolean }) {
  return (
    <ul className="pt-2">
      {data.after.map((after, index) => {
        const before = data.before[index];
        if (!before || !which(after.id)) return null;
        return (
          <li key={after.id} className="grid grid-cols-[1fr_84px_104px] items-center gap-2 py-[3px] text-[13px]">
            <span>{after.name}</span>
            <Ranges before={before} after={after} />
            <span className="text-right whitespace-nowrap">
              <b>{told(after, after.value)}</b>{" "}
              <span className="quiet text-[12px]">
                {told(after, after.low)} to {told(after, after.high)}
              </span>
            </span>
          </li>
        );
      })}
    </ul>
  );
}

const told = ({ unit }: Learnt, value: number): string => value.toFixed(unit === "" ? 2 : 0);

function Ranges({ before, after }: { before: Learnt; after: Learnt }) {
  const x = scaleLinear()
    .domain([Math.min(before.low, after.low), Math.max(before.high, after.high)])
    .range([3, WIDTH - 3]);
  return (
    <svg
      width={WIDTH}
      height={18}
      role="img"
      aria-label={`${after.name}: ${told(before, before.value)} before, ${told(after, after.value)} after`}
    >
      <line x1={x(before.low)} x2={x(before.high)} y1={14} y2={14} stroke="var(--rule-2)" strokeWidth={3} />
      <line x1={x(after.low)} x2={x(after.high)} y1={6} y2={6} stroke="var(--ink)" strokeWidth={1.6} />
      <rect x={x(after.value) - 3.5} y={2.5} width={7} height={7} fill="var(--ink)" />
    </svg>
  );
}

const KINDS = { strikes: "Strikes", heart: "Heart rates", rpe: "Ratings" } as const;
const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** How many numbers lie in the range that was forecast, before and after. */
function Forecasts({ data }: { data: Schemas["LearnedOut"] }) {
  return (
    <ul className="pt-2 text-[13px]">
      {Object.entries(KINDS).map(([kind, name]) => {
        const before = data.forecast_before[kind];
        const after = data.forecast_after[kind];
        if (!before || !after) return null;
        return (
          <li key={kind}>
            {name} inside their range: <b>{percent(after.inside)}</b>, before {percent(before.inside)}
          </li>
        );
      })}
    </ul>
  );
}
