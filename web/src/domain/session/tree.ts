/** Reading and changing a session tree by path. A change makes a new tree; the old one is untouched. */

import type { Schemas } from "../../api/client";

export type Part = Schemas["Part"];
export type Node = Part["tree"];
export type Path = readonly (string | number)[];

type Tempo = Schemas["IntervalNode"]["tempo"];
/** Seconds, or reps; the steps of a ladder are changed in the text. */
export type Dose = { seconds: number } | { reps: number } | "ladder";

export type Field =
  | { kind: "count"; label: string; path: Path; value: number }
  | { kind: "interval"; label: string; path: Path; dose: Dose; tempo: Tempo }
  | { kind: "between"; label: string; path: Path; value: number }
  /** What the coach fixes of an interval. */
  | { kind: "fixed"; label: string; path: Path; value: number; min: number; max: number; step: number };

const FIXED = [
  { name: "per_min", label: "Strikes a minute", min: 1, max: 480, step: 5 },
  { name: "power_percent", label: "Power, %", min: 5, max: 100, step: 5 },
  { name: "demand_percent", label: "Of VO₂max, %", min: 20, max: 400, step: 5 },
] as const;

/** The seconds between passes at each effort, where nothing else is said. */
export type Resets = Partial<Record<Tempo, number>>;

/** Between passes of a combination there is a reset, the effort's own where none is said; on a beat there is none. */
function resetOf(node: Schemas["IntervalNode"], resets: Resets, path: Path): Field[] {
  if (!node.drill || node.beat || node.per_min != null) return [];
  const own = resets[node.tempo];
  const value = node.reset_s ?? (own === undefined ? null : Math.round(own));
  if (value === null) return [];
  return [{ kind: "fixed", label: "Reset, s", path: [...path, "reset_s"], value, min: 0, max: 30, step: 1 }];
}

export function setIn<T>(value: T, path: Path, change: unknown): T {
  const [key, ...rest] = path;
  if (key === undefined) return change as T;
  const inner = (value as Record<string | number, unknown>)[key];
  const copy = (Array.isArray(value) ? [...value] : { ...value }) as Record<string | number, unknown>;
  copy[key] = setIn(inner, rest, change);
  return copy as T;
}

function holdsRepeat(node: Node): boolean {
  if (node.type === "repeat") return true;
  return node.type === "sequence" && node.items.some(holdsRepeat);
}

function doseOf(node: Schemas["IntervalNode"]): Dose {
  const [reps, ...more] = node.reps ?? [];
  if (reps === undefined) return { seconds: node.seconds ?? 0 };
  return more.length ? "ladder" : { reps };
}

function labelOf({ tempo, open_ended: open }: Schemas["IntervalNode"], last: boolean): string {
  if (open) return "Open work, about";
  if (tempo === "rest") return last ? "Then rest" : "Rest";
  return tempo === "recover" ? "Recover" : "Work";
}

/** Everything in a tree that a stepper can change, in the order it is read. Of several alike, each says which it is. */
export function fieldsOf(tree: Node, resets: Resets = {}): Field[] {
  const fields = found(tree, resets);
  return fields.map((field) => {
    const same = fields.filter((each) => each.label === field.label);
    return same.length < 2 ? field : { ...field, label: `${field.label} ${same.indexOf(field) + 1}` };
  });
}

function found(node: Node, resets: Resets, path: Path = [], last = false): Field[] {
  switch (node.type) {
    case "interval":
      return [
        { kind: "interval", label: labelOf(node, last), path, dose: doseOf(node), tempo: node.tempo },
        ...FIXED.flatMap(({ name, ...fixed }): Field[] => {
          const value = node[name];
          return value == null ? [] : [{ kind: "fixed", path: [...path, name], value, ...fixed }];
        }),
        ...resetOf(node, resets, path),
      ];
    case "sequence":
      return node.items.flatMap((item, index) =>
        found(item, resets, [...path, "items", index], path.length === 0 && index === node.items.length - 1),
      );
    case "repeat": {
      const sets = holdsRepeat(node.body);
      const label = sets ? "Sets" : "Rounds";
      const between = sets ? "Rest between sets" : "Rest between";
      return [
        { kind: "count", label, path: [...path, "count"], value: node.count },
        ...found(node.body, resets, [...path, "body"]),
        { kind: "between", label: between, path: [...path, "between"], value: node.between?.seconds ?? 0 },
      ];
    }
  }
}

/** The tree with one field changed; a rest between of 0:00 is none. */
export function changed(tree: Node, field: Field, value: number | Tempo): Node {
  if (field.kind === "count" || field.kind === "fixed") return setIn(tree, field.path, value);
  if (field.kind === "interval") {
    if (typeof value !== "number") return setIn(tree, [...field.path, "tempo"], value);
    const reps = field.dose !== "ladder" && "reps" in field.dose;
    return setIn(tree, reps ? [...field.path, "reps", 0] : [...field.path, "seconds"], value);
  }
  if (value === 0) return setIn(tree, field.path, null);
  const before = field.path.reduce<unknown>((at, key) => (at as Record<string | number, unknown>)?.[key], tree);
  const pause = (before as Schemas["IntervalNode"] | null) ?? { type: "interval", tempo: "rest" };
  return setIn(tree, field.path, { ...pause, seconds: value });
}

/** What a new row is until its first line reads: nothing of it is shown, judged or saved. */
export function newPart(name: string): Part {
  return {
    name,
    purpose: null,
    tree: { type: "interval", seconds: 60, tempo: "technique" },
  };
}
