/** Changing several rows of the outline together. Every change makes new parts. */

import type { Part } from "../../domain/session/tree";
import { changedAll, levelsOf } from "./levels";

type Rows = ReadonlySet<number>;
type Tempo = NonNullable<Parameters<typeof changedAll>[2]["tempo"]>;

export const without = (parts: Part[], rows: Rows): Part[] => parts.filter((_part, index) => !rows.has(index));

/** The rows once more, after the last of them. */
export function doubledRows(parts: Part[], rows: Rows): Part[] {
  const last = Math.max(...rows);
  const copies = parts.filter((_part, index) => rows.has(index));
  return parts.toSpliced(last + 1, 0, ...copies);
}

export const withPurpose = (parts: Part[], rows: Rows, purpose: Part["purpose"]): Part[] =>
  parts.map((part, index) => (rows.has(index) ? { ...part, purpose } : part));

/** Another effort for all the work of the rows; pauses stay pauses. */
export const withEffort = (parts: Part[], rows: Rows, tempo: Tempo, isWork: (tempo: Tempo) => boolean): Part[] =>
  parts.map((part, index) => {
    if (!rows.has(index)) return part;
    const work = levelsOf(part.tree).filter(({ node }) => node.type === "interval" && isWork(node.tempo));
    return {
      ...part,
      tree: changedAll(
        part.tree,
        work.map((level) => level.path),
        { tempo },
      ),
    };
  });

/** The rows as one part, in order, in the place of the first, with its name and purpose. */
export function joined(parts: Part[], rows: Rows): Part[] {
  const inside = parts.filter((_part, index) => rows.has(index));
  const [first] = inside;
  if (!first || inside.length < 2) return parts;
  const items = inside.flatMap(({ tree }) => (tree.type === "sequence" ? tree.items : [tree]));
  const at = Math.min(...rows);
  return parts.flatMap((part, index) => {
    if (index === at) return [{ ...first, tree: { type: "sequence" as const, items } }];
    return rows.has(index) ? [] : [part];
  });
}
