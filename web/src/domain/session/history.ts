/** Undo and redo over whole values. Values are never changed in place, so keeping them is cheap. */

export interface History<T> {
  past: T[];
  now: T;
  future: T[];
}

const DEEPEST = 300;

export const begin = <T>(now: T): History<T> => ({ past: [], now, future: [] });

export function record<T>(history: History<T>, next: T): History<T> {
  if (next === history.now) return history;
  return { past: [...history.past, history.now].slice(-DEEPEST), now: next, future: [] };
}

export function undo<T>(history: History<T>): History<T> {
  const before = history.past[history.past.length - 1];
  if (before === undefined) return history;
  return { past: history.past.slice(0, -1), now: before, future: [history.now, ...history.future] };
}

export function redo<T>(history: History<T>): History<T> {
  const [after, ...future] = history.future;
  if (after === undefined) return history;
  return { past: [...history.past, history.now], now: after, future };
}
