import type { Part } from "../../../domain/session/tree";

/** Which parts of either side the other does not have just so: by their place, each part of the other used once. */
export function differing(left: Part[], right: Part[]): { left: Set<number>; right: Set<number> } {
  const free = new Map<string, number>();
  const keyOf = (part: Part) => JSON.stringify(part);
  for (const part of right) free.set(keyOf(part), (free.get(keyOf(part)) ?? 0) + 1);
  const take = (part: Part) => {
    const count = free.get(keyOf(part)) ?? 0;
    if (count) free.set(keyOf(part), count - 1);
    return count > 0;
  };
  const found = { left: new Set<number>(), right: new Set<number>() };
  const shared = new Map<string, number>();
  left.forEach((part, index) => {
    if (take(part)) shared.set(keyOf(part), (shared.get(keyOf(part)) ?? 0) + 1);
    else found.left.add(index);
  });
  right.forEach((part, index) => {
    const count = shared.get(keyOf(part)) ?? 0;
    if (count) shared.set(keyOf(part), count - 1);
    else found.right.add(index);
  });
  return found;
}
