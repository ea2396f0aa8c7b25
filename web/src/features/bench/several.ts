/** Changing several rows of the outline together. Every change makes new parts. */

import { type Part, setIn } from "../../domain/session/tree";
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

/** The tree of a part in which all work says the kit of the part, where it says none itself. */
function equipped({ tree, gloves, kit }: Part): Part["tree"] {
  return levelsOf(tree).reduce((now, { path, node }) => {
    if (node.type !== "interval" || node.tempo === "rest" || node.tempo === "recover") return now;
    const own = { ...node, gloves: node.gloves ?? gloves ?? null, kit: node.kit?.length ? node.kit : (kit ?? []) };
    return setIn(now, path, own);
  }, tree);
}

const kitOf = ({ gloves, kit }: Part): string => JSON.stringify([gloves ?? null, kit ?? []]);

/** The rows as one part, in order, in the place of the first, with its name and purpose; all in the kit they were in. */
export function joined(parts: Part[], rows: Rows): Part[] {
  const inside = parts.filter((_part, index) => rows.has(index));
  const [first] = inside;
  if (!first || inside.length < 2) return parts;
  const alike = inside.every((part) => kitOf(part) === kitOf(first));
  const head = alike ? first : { ...first, gloves: null, kit: [] };
  const trees = inside.map((part) => (alike ? part.tree : equipped(part)));
  const items = trees.flatMap((tree) => (tree.type === "sequence" ? tree.items : [tree]));
  const at = Math.min(...rows);
  return parts.flatMap((part, index) => {
    if (index === at) return [{ ...head, tree: { type: "sequence" as const, items } }];
    return rows.has(index) ? [] : [part];
  });
}
