import type { Schemas } from "../../api/client";

/** The cautions that still speak for whom a card is made. */
export function Spoken({ cautions }: { cautions: Schemas["Caution"][] }) {
  if (!cautions.length) return null;
  return (
    <ul className="grid gap-1 pt-1" aria-label="Cautions that remain">
      {cautions.map((caution) => (
        <li key={caution.rule}>
          <span className={`seal ${caution.severity === "note" ? "light" : ""}`}>{caution.seal}</span> {caution.text}{" "}
          <span className="quiet">{caution.cure}</span>
        </li>
      ))}
    </ul>
  );
}
