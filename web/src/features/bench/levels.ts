/** Changing the levels of a part by their path: split, nest, move, double, remove. Every change makes a new tree. */

import type { Schemas } from "../../api/client";
import { type Node, type Path, setIn } from "../../domain/session/tree";

/** An interval or a repeat inside a part; sequences only hold them together. */
export interface Level {
  path: Path;
  depth: number;
  node: Exclude<Node, { type: "sequence" }>;
}

export const levelKey = (path: Path): string => path.join(".");

export function nodeAt(tree: Node, path: Path): Node {
  return path.reduce<unknown>((at, key) => (at as Record<string | number, unknown>)[key], tree) as Node;
}

/** Every level of a tree in the order it is read. */
export function levelsOf(node: Node, path: Path = [], depth = 0): Level[] {
  if (node.type === "sequence") {
    return node.items.flatMap((item, index) => levelsOf(item, [...path, "items", index], depth));
  }
  const own: Level = { path, depth, node };
  return node.type === "repeat" ? [own, ...levelsOf(node.body, [...path, "body"], depth + 1)] : [own];
}

/** The items as one node, sequences in sequences laid flat. */
function inOrder(items: Node[]): Node {
  const flat = items.flatMap((item) => (item.type === "sequence" ? item.items : [item]));
  return flat.length === 1 ? (flat[0] as Node) : { type: "sequence", items: flat };
}

/** Where a level stands among others: the path of their sequence, and its place; null where it stands alone. */
export function standing(path: Path): { parent: Path; index: number } | null {
  const index = path[path.length - 1];
  return typeof index === "number" ? { parent: path.slice(0, -2), index } : null;
}

/** The tree with a level's place taken by any number of others; null where nothing is left. */
export function replaced(tree: Node, path: Path, by: Node[]): Node | null {
  const place = standing(path);
  if (place) {
    const parent = nodeAt(tree, place.parent) as Schemas["SequenceNode"];
    return replaced(tree, place.parent, [inOrder(parent.items.toSpliced(place.index, 1, ...by))]);
  }
  if (by.length === 0) {
    // The body of a repeat is gone, so the repeat goes too.
    return path.length === 0 ? null : replaced(tree, path.slice(0, -1), []);
  }
  return flattened(setIn(tree, path, inOrder(by)), path);
}

/** A sequence that has come to stand in a sequence is laid flat. */
function flattened(tree: Node, path: Path): Node {
  const place = standing(path);
  if (!place) return tree;
  const parent = nodeAt(tree, place.parent) as Schemas["SequenceNode"];
  return setIn(tree, place.parent, inOrder(parent.items));
}

export const removed = (tree: Node, path: Path): Node | null => replaced(tree, path, []);

export function doubled(tree: Node, path: Path): Node {
  const node = nodeAt(tree, path);
  return replaced(tree, path, [node, node]) ?? tree;
}

/** A timed interval in two halves, or a repeat in two with its rest between them; null where it cannot be split. */
export function split(tree: Node, path: Path): Node | null {
  const node = nodeAt(tree, path);
  if (node.type === "interval" && node.seconds && node.seconds >= 2) {
    const first = Math.ceil(node.seconds / 2);
    return replaced(tree, path, [
      { ...node, seconds: first },
      { ...node, seconds: node.seconds - first },
    ]);
  }
  if (node.type === "repeat" && node.count >= 2) {
    const first = Math.ceil(node.count / 2);
    const times = (count: number): Node => (count === 1 ? node.body : { ...node, count });
    const between = node.between ? [node.between] : [];
    return replaced(tree, path, [times(first), ...between, times(node.count - first)]);
  }
  return null;
}

/** The levels put into a repeat of two; null where they do not stand next to each other. */
export function nested(tree: Node, paths: Path[]): Node | null {
  const [only] = paths;
  if (only === undefined) return null;
  if (paths.length === 1) {
    return replaced(tree, only, [{ type: "repeat", count: 2, body: nodeAt(tree, only), between: null }]);
  }
  const places = paths.map(standing);
  const parent = places[0]?.parent;
  if (!parent || places.some((place) => place === null || levelKey(place.parent) !== levelKey(parent))) return null;
  const at = places.map((place) => place?.index ?? 0).sort((a, b) => a - b);
  const first = at[0] ?? 0;
  if (at.some((index, step) => index !== first + step)) return null;
  const sequence = nodeAt(tree, parent) as Schemas["SequenceNode"];
  const body = inOrder(sequence.items.slice(first, first + at.length));
  const items = sequence.items.toSpliced(first, at.length, { type: "repeat", count: 2, body, between: null });
  return replaced(tree, parent, [inOrder(items)]);
}

/** The repeat taken away and its content left once; null where it is none. */
export function unnested(tree: Node, path: Path): Node | null {
  const node = nodeAt(tree, path);
  return node.type === "repeat" ? replaced(tree, path, [node.body]) : null;
}

/** The level moved to another place of its own sequence; null where there is no such place. */
export function movedTo(tree: Node, path: Path, index: number): Node | null {
  const place = standing(path);
  if (!place) return null;
  const parent = nodeAt(tree, place.parent) as Schemas["SequenceNode"];
  const item = parent.items[place.index];
  if (!item || index < 0 || index >= parent.items.length) return null;
  const items = parent.items.toSpliced(place.index, 1).toSpliced(index, 0, item);
  return setIn(tree, [...place.parent, "items"], items);
}

/** Another effort, or so many seconds more, for all of these that have one. */
export function changedAll(tree: Node, paths: Path[], change: { tempo?: Tempo; by?: number }): Node {
  return paths.reduce((now, path) => {
    const node = nodeAt(now, path);
    if (node.type !== "interval") return now;
    const seconds = node.seconds && change.by ? Math.max(1, node.seconds + change.by) : node.seconds;
    return setIn(now, path, { ...node, ...(change.tempo ? { tempo: change.tempo } : {}), seconds });
  }, tree);
}

type Tempo = Schemas["IntervalNode"]["tempo"];
