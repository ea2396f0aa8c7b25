const known = new WeakMap<object, string>();

/** A value as text, its keys in order. What is never changed in place is written once: an edit writes what it touched. */
function written(value: unknown): string {
  if (typeof value !== "object" || value === null) return JSON.stringify(value) ?? "null";
  const before = known.get(value);
  if (before !== undefined) return before;
  const text = Array.isArray(value)
    ? `[${value.map(written)}]`
    : `{${Object.entries(value)
        .filter(([, each]) => each !== undefined)
        .sort(([one], [other]) => (one < other ? -1 : 1))
        .map(([name, each]) => `${JSON.stringify(name)}:${written(each)}`)}}`;
  known.set(value, text);
  return text;
}

/** What a question is known by. Keys of whole sessions are asked for several times in each drawing. */
export const hashed = (key: readonly unknown[]): string => `[${key.map(written)}]`;
