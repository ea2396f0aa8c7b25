import type { Schemas } from "../../api/client";
import { Tally } from "../../ui/Tally";

/** The weeks in a sentence, and what was looked at. */
export function Block({ trends: { title, sentence, points } }: { trends: Schemas["TrendsOut"] }) {
  const fine = points.filter((point) => point.fine).length;
  return (
    <section aria-label="In a sentence">
      <div className="flex items-center gap-3">
        {points.length > 0 && <Tally strokes={fine} label={`${fine} of ${points.length}`} />}
        <div>
          <h2>{title}</h2>
          {points.length > 0 && (
            <p className="quiet text-[13px]">
              {fine} of {points.length} for this block
            </p>
          )}
        </div>
      </div>
      <p className="pt-2">{sentence}</p>
      <ul className="grid gap-[6px] pt-3">
        {points
          .toSorted((a, b) => Number(a.fine) - Number(b.fine))
          .map((point) => (
            <li key={point.seal} className="grid grid-cols-[64px_1fr] items-baseline text-[13px]">
              {point.fine ? (
                <span className="tick">✓ Clear</span>
              ) : (
                <span className="seal justify-self-start">{point.seal}</span>
              )}
              <span>
                {point.text} {point.cure}
              </span>
            </li>
          ))}
      </ul>
    </section>
  );
}
