import { Tick } from "../../ui/Tick";
import type { useGate } from "./useGate";

/** Who may not do this session today, and why; the way past it where there is one. */
export function Gate({ gate }: { gate: ReturnType<typeof useGate> }) {
  if (gate.unasked) {
    return (
      <p role="status" className="pt-2">
        <span className="seal">Off line</span> Limits and screening could not be looked up. Ask everybody yourself.
      </p>
    );
  }
  if (gate.stopped.length === 0) return null;
  return (
    <section aria-label="Stops" className="mt-2 border-2 border-[var(--vermilion)] p-3">
      <ul className="grid gap-2">
        {gate.stopped.flatMap(({ name, stops }) =>
          stops.map((stop) => (
            <li key={`${name} ${stop.rule}`}>
              <span className="seal">{stop.seal}</span> <b>{name}.</b> {stop.text} {stop.cure}
            </li>
          )),
        )}
      </ul>
      {gate.final ? (
        <p className="pt-2 font-semibold">There is no way past this. Choose somebody else, or another day.</p>
      ) : (
        <div className="pt-1">
          <Tick
            label="I have read this and run it all the same; it stays on record"
            on={gate.seen}
            onChange={gate.see}
          />
        </div>
      )}
    </section>
  );
}
