import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas } from "../../api/client";
import { capital } from "../../ui/capital";

interface Props {
  asked: Pick<Schemas["ClaimIn"], "document" | "person_id">;
  targets: Schemas["TargetOut"][];
}

const KCAL = "kcal";
const TABATA = "tabata";

/** What somebody claims of this session, held against the numbers. */
export function Claims({ asked, targets }: Props) {
  const [kind, setKind] = useState<string>(KCAL);
  const [kcal, setKcal] = useState("500");
  const check = useMutation({
    mutationFn: () => {
      const trains = kind === KCAL || kind === TABATA ? null : (kind as Schemas["TargetOut"]["id"]);
      const claimed = kind === KCAL ? Number(kcal) : null;
      return need(api.POST("/api/claim", { body: { ...asked, kcal: claimed, tabata: kind === TABATA, trains } }));
    },
  });
  const wrong = kind === KCAL && !(Number(kcal) >= 1 && Number(kcal) <= 20_000);
  return (
    <details className="mt-3 ink-t pt-2">
      <summary className="cursor-pointer">
        <h3 className="inline">Check a claim</h3>
      </summary>
      <form
        className="flex flex-wrap items-center gap-2 pt-2 text-[13px]"
        onSubmit={(event) => {
          event.preventDefault();
          if (!wrong) check.mutate();
        }}
      >
        <select
          aria-label="Claim"
          className="h-[30px] rounded-[2px] border border-[var(--ink)] bg-[var(--sheet)] px-1 max-[899px]:h-[44px]"
          value={kind}
          onChange={(event) => setKind(event.target.value)}
        >
          <option value={KCAL}>it burns, in kcal</option>
          <option value={TABATA}>it is Tabata</option>
          {targets.map((target) => (
            <option key={target.id} value={target.id}>
              it trains {target.name}
            </option>
          ))}
        </select>
        {kind === KCAL && (
          <input
            aria-label="kcal claimed"
            aria-invalid={wrong}
            className="field h-[30px] min-h-0 w-[72px] max-[899px]:h-[44px]"
            inputMode="numeric"
            value={kcal}
            onChange={(event) => setKcal(event.target.value)}
          />
        )}
        <button type="submit" className="act" disabled={check.isPending || wrong}>
          {check.isPending ? "Checking …" : "Check"}
        </button>
      </form>
      {wrong && (
        <p role="alert" className="text-[12px] text-[var(--vermilion)]">
          from 1 to 20000 kcal
        </p>
      )}
      <p role="status" className="pt-1 text-[13px] leading-[17px]">
        {check.error?.message}
        {check.data && (
          <>
            <b>{capital(check.data.answer)}.</b> {check.data.text}{" "}
            <span className="quiet">Source: {check.data.source}.</span>
          </>
        )}
      </p>
    </details>
  );
}
