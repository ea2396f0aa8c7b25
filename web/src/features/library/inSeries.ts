import type { Schemas } from "../../api/client";

type Row = Schemas["SessionRow"];

/** The sessions with those of a series together, in the order of its weeks, where the first found of it stands. */
export function inSeries(rows: Row[]): Row[] {
  const seen = new Set<string>();
  return rows.flatMap((row) => {
    const id = row.series?.id;
    if (!id) return [row];
    if (seen.has(id)) return [];
    seen.add(id);
    return rows
      .filter((each) => each.series?.id === id)
      .toSorted((a, b) => (a.series?.week ?? 0) - (b.series?.week ?? 0));
  });
}
