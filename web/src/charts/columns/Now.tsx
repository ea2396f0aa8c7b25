import { Column } from "./Column";
import type { Drawn } from "./drawn";

/** What is on the bench now, as the first column. */
export function Now({ now, longest }: { now: Drawn; longest: number }) {
  return (
    <Column
      {...now}
      label="On the bench now"
      region="On the bench now"
      text={null}
      words={<span className="quiet">Undo brings it back, whatever is taken.</span>}
      against={null}
      longest={longest}
    />
  );
}
