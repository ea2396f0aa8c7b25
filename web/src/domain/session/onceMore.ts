const NOTHING = Symbol("nothing");

/**
 * What a change would make of a value if it were done once more: every number that it moved moves as far again. `null`
 * where it did anything else, or where a number would not stay above nothing.
 */
export function onceMore<T>(before: T, now: T): T | null {
  const found = moved(before, now);
  return found === NOTHING || found === now ? null : (found as T);
}

function moved(before: unknown, now: unknown): unknown {
  if (before === now) return now;
  if (typeof before === "number" && typeof now === "number") return 2 * now > before ? 2 * now - before : NOTHING;
  if (!isTree(before) || !isTree(now) || Array.isArray(before) !== Array.isArray(now)) return NOTHING;
  const names = Object.keys(now);
  if (names.length !== Object.keys(before).length) return NOTHING;
  const fields = names.map((name) => [name, moved(before[name], now[name])] as const);
  if (fields.some(([, each]) => each === NOTHING)) return NOTHING;
  if (fields.every(([name, each]) => each === now[name])) return now;
  return Array.isArray(now) ? fields.map(([, each]) => each) : Object.fromEntries(fields);
}

const isTree = (value: unknown): value is Record<string, unknown> => typeof value === "object" && value !== null;
