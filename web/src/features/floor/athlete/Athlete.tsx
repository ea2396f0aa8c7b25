import { useCallback, useEffect, useState } from "react";
import { SmallScore } from "../../../charts/score/SmallScore";
import { forgetRun, recallRun } from "../../../domain/clock/keptRun";
import { Closed, open, type Shared } from "./link";
import { OwnClock } from "./OwnClock";
import { SendBack } from "./SendBack";

type Place = { at: "sheet" } | { at: "clock" } | { at: "back"; runId: string };

/** The session that a link opens: to be read, run, and told of. */
export function Athlete({ token }: { token: string }) {
  const [shared, setShared] = useState<Shared | null>(null);
  const [closed, setClosed] = useState<Closed | null>(null);
  const [place, setPlace] = useState<Place>({ at: "sheet" });
  const ask = useCallback(() => {
    setClosed(null);
    open(token)
      .then((found) => {
        setShared(found);
        const kept = recallRun(found.plan.session_id);
        if (kept?.run.endedAtMs) setPlace({ at: "back", runId: kept.run.runId });
        else if (kept?.run.startedAt) setPlace({ at: "clock" });
      })
      .catch((error: unknown) =>
        setClosed(error instanceof Closed ? error : new Closed("This page could not be opened.", false)),
      );
  }, [token]);
  useEffect(ask, [ask]);
  if (closed) {
    return (
      <main className="mx-auto max-w-[560px] px-4 pt-16">
        <h1>{closed.gone ? "This link opens nothing" : "Not opened"}</h1>
        <p className="py-3">{closed.message}</p>
        {!closed.gone && (
          <button type="button" className="act main" onClick={ask}>
            Try again
          </button>
        )}
      </main>
    );
  }
  if (!shared) {
    return (
      <main className="mx-auto max-w-[560px] px-4 pt-16">
        <p role="status">Opening the session …</p>
      </main>
    );
  }
  if (place.at === "clock") {
    return (
      <OwnClock
        plan={shared.plan}
        token={token}
        onOver={(runId) => setPlace({ at: "back", runId })}
        onLeave={() => setPlace({ at: "sheet" })}
      />
    );
  }
  if (place.at === "back") {
    return (
      <SendBack
        runId={place.runId}
        token={token}
        onDone={() => {
          forgetRun(place.runId);
          setPlace({ at: "sheet" });
        }}
      />
    );
  }
  return <Reading shared={shared} onRun={() => setPlace({ at: "clock" })} />;
}

function Reading({ shared: { plan, sheet }, onRun }: { shared: Shared; onRun: () => void }) {
  const blocks = sheet.bars.map(({ seconds, demand_frac, kind }) => ({
    seconds,
    demand_frac: kind === "rest" ? 0.05 : demand_frac,
  }));
  return (
    <main className="mx-auto max-w-[720px] px-4 pt-6 pb-28">
      <h1>{sheet.title}</h1>
      <p className="quiet">
        {sheet.purpose}: {sheet.trains}
      </p>
      <p className="pt-1">
        <b>{sheet.lasts}</b> in all, work <b>{sheet.work}</b>, rest <b>{sheet.rest}</b>
      </p>
      <div className="h-[88px] pt-3">
        <SmallScore blocks={blocks} label={`The score of ${sheet.title}, ${sheet.lasts}`} />
      </div>
      <ol className="pt-2">
        {sheet.parts.map((part, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: parts stand in their order, and their names may be alike
          <li key={index} className="border-b border-[var(--rule)] py-3">
            <h2>
              {part.name} <span className="quiet text-[14px] font-normal">{part.lasts}</span>
            </h2>
            <p className="font-semibold">{part.line}</p>
            <p className="quiet">{part.meaning}</p>
          </li>
        ))}
      </ol>
      {plan.bring.length > 0 && (
        <p className="pt-3">
          <b>Bring</b> {plan.bring.join(", ")}
        </p>
      )}
      {sheet.cautions.length > 0 && (
        <section aria-label="Cautions" className="pt-3">
          <h2>Cautions</h2>
          {sheet.cautions.map(([seal, text]) => (
            <p key={seal} className="pt-1">
              <span className="seal">{seal}</span> {text}
            </p>
          ))}
        </section>
      )}
      <section aria-label="Stop at once" className="pt-3">
        <h2>Stop at once</h2>
        <p>
          {sheet.stop_signs}. When in doubt, stop, and call {plan.emergency_number}.
        </p>
      </section>
      <p className="quiet pt-3 text-[13px]">
        Not sure whether hard training is for you, or ill, hurt or on medication? Ask a physician first.
      </p>
      <div className="fixed inset-x-0 bottom-0 border-t border-[var(--rule)] bg-[var(--paper)] p-3">
        <button
          type="button"
          className="mx-auto block h-[64px] w-full max-w-[720px] cursor-pointer bg-[var(--ink)] text-[22px] font-semibold text-[var(--sheet)]"
          onClick={onRun}
        >
          Run it
        </button>
      </div>
    </main>
  );
}
