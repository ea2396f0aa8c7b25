import { OutSheet } from "../../ui/SendOut";
import { Tracks } from "../../ui/Tracks";
import type { Kept } from "./plan";

/** Everything of a class that can leave the hall: who is where on paper, its session as a track. */
export function SendOutClass({ kept, title, onClose }: { kept: Kept; title: string; onClose: () => void }) {
  return (
    <OutSheet title={title} onClose={onClose}>
      <section aria-label="For the wall" className="rule-t mt-2 pt-3">
        <h3>Who is where, for the wall</h3>
        <p className="quiet pb-2 text-[13px]">One page, in black, the names as large as they can be.</p>
        <p className="flex flex-wrap gap-2">
          {(["a4", "letter"] as const).map((paper) => (
            <a
              key={paper}
              className="act"
              href={`/api/classes/${kept.id}/wall?paper=${paper}`}
              target="_blank"
              rel="noreferrer"
            >
              {paper === "a4" ? "A4" : "Letter"}
            </a>
          ))}
        </p>
      </section>
      <Tracks sessionId={kept.session_id} />
    </OutSheet>
  );
}
