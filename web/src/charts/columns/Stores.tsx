import type { Drawn } from "./drawn";

/** The lactic and the sprint store in small. */
export function Stores({ traces, width }: { traces: Drawn["traces"]; width: string }) {
  const stores = [
    { name: "Lactic store", values: traces.lactic_left, hue: "var(--lactic)" },
    { name: "Sprint store", values: traces.sprint_left, hue: "var(--sprint)" },
  ];
  const end = traces.seconds.at(-1) ?? 1;
  return (
    <div>
      {stores.map((store) => (
        <div key={store.name} className="pt-2">
          <p className="text-[12px] leading-[14px]">{store.name}</p>
          <div className="h-[36px] border-b border-[var(--rule-2)]" style={{ width }}>
            <svg
              className="h-full w-full"
              viewBox={`0 0 ${end} 1`}
              preserveAspectRatio="none"
              role="img"
              aria-label={`${store.name}: down to ${Math.round(100 * Math.min(...store.values))} percent`}
            >
              <polyline
                fill="none"
                stroke={store.hue}
                strokeWidth={1.5}
                vectorEffect="non-scaling-stroke"
                points={store.values.map((value, index) => `${traces.seconds[index]},${1 - value}`).join(" ")}
              />
            </svg>
          </div>
        </div>
      ))}
    </div>
  );
}
