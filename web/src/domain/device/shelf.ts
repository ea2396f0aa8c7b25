/**
 * What this device keeps outside the database of the browser: one store, in which everything says its version. What is
 * broken or of a version that nobody reads any more is as if it were not there; a store that is full or forbidden costs
 * only what it was to keep.
 */

interface Kept {
  v: number;
  value: unknown;
}

export interface Shelf<T> {
  get(id?: string | number): T | null;
  /** False where the device would not keep it. */
  set(value: T, id?: string | number): boolean;
  remove(id?: string | number): void;
  /** Ids of all that stands on it. */
  ids(): string[];
}

const ROOT = "yoisho";

function parsed(text: string | null): Kept | null {
  if (text === null) return null;
  try {
    const found = JSON.parse(text) as Partial<Kept> | null;
    if (typeof found?.v === "number" && "value" in found) return found as Kept;
    // Written before versions were kept.
    return { v: 0, value: found };
  } catch {
    return { v: 0, value: text };
  }
}

/**
 * A shelf of the store. `read` gives what was written by this version or by an earlier one, in today's shape; null for
 * what it cannot read.
 */
export function shelf<T>(name: string, version: number, read: (value: unknown, version: number) => T | null): Shelf<T> {
  const keyOf = (id?: string | number) => [ROOT, name, ...(id === undefined ? [] : [id])].join(".");
  const prefix = `${ROOT}.${name}.`;
  return {
    get(id) {
      try {
        const kept = parsed(localStorage.getItem(keyOf(id)));
        return kept && kept.v <= version ? read(kept.value, kept.v) : null;
      } catch {
        return null;
      }
    },
    set(value, id) {
      try {
        localStorage.setItem(keyOf(id), JSON.stringify({ v: version, value } satisfies Kept));
        return true;
      } catch {
        return false;
      }
    },
    remove: (id) => localStorage.removeItem(keyOf(id)),
    ids() {
      const keys = Array.from({ length: localStorage.length }, (_, index) => localStorage.key(index) ?? "");
      return keys.filter((key) => key.startsWith(prefix)).map((key) => key.slice(prefix.length));
    },
  };
}
