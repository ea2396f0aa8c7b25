import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { type Node, type Path, setIn } from "../../domain/session/tree";
import { clock, readClock } from "../../domain/time";
import { Choice } from "../../ui/Choice";
import { actionOf, LEVELS } from "../../ui/keymap";
import { Stepper } from "../../ui/Stepper";
import { Grip, useGrip } from "./Grip";
import { LevelText } from "./LevelText";
import {
  changedAll,
  doubled,
  type Level,
  levelKey,
  levelsOf,
  movedTo,
  nested,
  removed,
  replaced,
  split,
  standing,
  unnested,
} from "./levels";
import { LONGEST_S, MOST_ROUNDS, readCount, stepOf } from "./limits";
import { Sortables } from "./Sortables";

const BUTTONS = [
  ["nest", "Nest"],
  ["unnest", "Un-nest"],
  ["split", "Split"],
  ["double", "Double"],
  ["remove", "Remove"],
  ["moveUp", "Up"],
  ["moveDown", "Down"],
] as const;

interface Props {
  tree: Node;
  /** Lines by the key of their path. */
  texts: ReadonlyMap<string, string>;
  tempos: Schemas["TempoOut"][];
  onChange: (tree: Node) => void;
  /** Hears what a step of a number would make of the tree. */
  onAhead: (tree: Node) => void;
}

/** Every level inside a part: its own line, length and effort; split, nested, moved, doubled, removed, one or several. */
export function Levels({ tree, texts, tempos, onChange, onAhead }: Props) {
  const levels = levelsOf(tree);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState(0);
  const [said, setSaid] = useState("");
  const list = useRef<HTMLUListElement>(null);
  const here = Math.min(at, levels.length - 1);
  const chosen = levels.filter((level) => picked.has(levelKey(level.path)));
  const current = levels[here];
  const acted = chosen.length ? chosen : current ? [current] : [];

  const wanted = useRef<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the focus follows its level once the tree has changed
  useEffect(() => {
    if (wanted.current === null) return;
    list.current?.querySelector<HTMLElement>(`[data-level="${wanted.current}"] input[type=checkbox]`)?.focus();
    wanted.current = null;
  }, [tree]);

  /** Lay the changed tree, or say why it cannot be; the focus goes to the level at `path`. */
  function lay(next: Node | null, why: string, path?: Path) {
    if (!next) return setSaid(why);
    setSaid("");
    setPicked(new Set());
    wanted.current = path ? levelKey(path) : null;
    onChange(next);
  }
  /** The same done to several levels, from the last to the first, so that the places of the others hold. */
  function each(change: (now: Node, path: Path) => Node | null, why: string) {
    const next = acted.reduceRight<Node | null>((now, level) => now && change(now, level.path), tree);
    lay(next, why, current?.path);
  }
  function step(by: 1 | -1) {
    const [only] = acted;
    const place = only && standing(only.path);
    if (!only || !place) return setSaid("It stands alone in its repeat: there is nothing to move past.");
    const index = place.index + by;
    lay(movedTo(tree, only.path, index), "It is at the end of its repeat already.", [...place.parent, "items", index]);
  }
  const paths = () => acted.map((level) => level.path);
  function goTo(by: 1 | -1) {
    const level = levels[Math.min(levels.length - 1, Math.max(0, here + by))];
    const row = level && `[data-level="${levelKey(level.path)}"] input[type=checkbox]`;
    if (row) list.current?.querySelector<HTMLElement>(row)?.focus();
  }
  const actions = {
    nest: () => lay(nested(tree, paths()), "Only what stands side by side goes into one repeat."),
    unnest: () => each(unnested, "Only a repeat can be taken away."),
    split: () => each(split, "Only a time of 0:02 or more, or two rounds or more, can be split."),
    double: () => each(doubled, ""),
    remove: () => each(removed, "A part holds at least one thing; remove the part instead."),
    moveUp: () => step(-1),
    moveDown: () => step(1),
    up: () => goTo(-1),
    down: () => goTo(1),
  };
  const onKey = (event: KeyboardEvent) => {
    if ((event.target as HTMLElement).matches("input:not([type=checkbox]), select, textarea, [role=spinbutton]"))
      return;
    const action = actionOf(LEVELS, event);
    if (!action) return;
    actions[action]();
    event.preventDefault();
    event.stopPropagation();
  };
  const onDrop = (id: string, onto: string) => {
    const from = levels.find((level) => levelKey(level.path) === id);
    const to = levels.find((level) => levelKey(level.path) === onto);
    if (!from || !to) return;
    const [a, b] = [standing(from.path), standing(to.path)];
    if (!a || !b || levelKey(a.parent) !== levelKey(b.parent))
      return setSaid("A level is dragged inside its own repeat.");
    lay(movedTo(tree, from.path, b.index), "", [...a.parent, "items", b.index]);
  };

  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: keys of the rows inside
    <div className="mt-2 border-t border-[var(--rule)] pt-2" onKeyDown={onKey}>
      <div
        className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]"
        role="toolbar"
        aria-label="Change the levels"
      >
        <span className="quiet">{chosen.length ? `${chosen.length} picked` : "The level in hand"}</span>
        {BUTTONS.map(([action, word]) => (
          <button key={action} type="button" className="link min-h-[30px]" onClick={actions[action]}>
            {word}
          </button>
        ))}
        {chosen.length > 0 && (
          <>
            <select
              aria-label="Effort of all that are picked"
              className="h-[30px] rounded-[2px] border border-[var(--ink)] bg-[var(--sheet)] px-1 max-[899px]:h-[44px]"
              value=""
              onChange={(event) => {
                const tempo = event.target.value as Schemas["TempoOut"]["id"];
                onChange(changedAll(tree, paths(), { tempo }));
              }}
            >
              <option value="">effort of all …</option>
              {tempos.map((tempo) => (
                <option key={tempo.id} value={tempo.id}>
                  {tempo.word}
                </option>
              ))}
            </select>
            {([5, -5] as const).map((by) => (
              <button
                key={by}
                type="button"
                className="act min-h-[30px] px-2"
                aria-label={by > 0 ? "All 5 seconds longer" : "All 5 seconds shorter"}
                onClick={() => onChange(changedAll(tree, paths(), { by }))}
              >
                {by > 0 ? "+ 0:05" : "− 0:05"}
              </button>
            ))}
          </>
        )}
      </div>
      <p role="status" className="min-h-[18px] text-[12px] text-[var(--vermilion)]">
        {said}
      </p>
      <Sortables ids={levels.map((level) => levelKey(level.path))} onDrop={onDrop}>
        <ul ref={list} aria-label="Levels">
          {levels.map((level, index) => (
            <Row
              key={levelKey(level.path)}
              level={level}
              current={index === here}
              text={texts.get(levelKey(level.path)) ?? ""}
              picked={picked.has(levelKey(level.path))}
              tempos={tempos}
              onFocus={() => setAt(index)}
              onPick={(on) => {
                const next = new Set(picked);
                if (on) next.add(levelKey(level.path));
                else next.delete(levelKey(level.path));
                setPicked(next);
              }}
              onSet={(path, value) => onChange(setIn(tree, path, value))}
              onAhead={(path, value) => onAhead(setIn(tree, path, value))}
              onRead={(node) => lay(replaced(tree, level.path, [node]), "", level.path)}
            />
          ))}
        </ul>
      </Sortables>
    </div>
  );
}

interface RowProps {
  level: Level;
  current: boolean;
  text: string;
  picked: boolean;
  tempos: Schemas["TempoOut"][];
  onFocus: () => void;
  onPick: (on: boolean) => void;
  onSet: (path: Path, value: unknown) => void;
  onAhead: (path: Path, value: unknown) => void;
  onRead: (node: Node) => void;
}

function Row({ level, current, text, picked, tempos, onFocus, onPick, onSet, onAhead, onRead }: RowProps) {
  const { path, node, depth } = level;
  const grip = useGrip(levelKey(path));
  const moves = (place: Path, as = (value: number): unknown => value) => ({
    onChange: (value: number) => onSet(place, as(value)),
    onAhead: (value: number) => onAhead(place, as(value)),
  });
  const name = text || (node.type === "repeat" ? "repeat" : node.tempo);
  return (
    <li
      ref={grip.row}
      style={{ ...grip.style, paddingLeft: `${18 * depth}px` }}
      data-level={levelKey(path)}
      className={`flex flex-wrap items-start gap-x-3 gap-y-1 border-t border-[var(--rule)] py-[5px] ${current ? "bg-[var(--paper)]" : ""}`}
      onFocus={onFocus}
    >
      <Grip {...grip.handle} label={`Move ${name}`} />
      <label className="flex h-[34px] items-center max-[899px]:h-[44px] max-[899px]:w-[30px]">
        <input
          type="checkbox"
          aria-label={`Pick ${name}`}
          className="h-[18px] w-[18px] accent-[var(--ink)]"
          tabIndex={current ? 0 : -1}
          checked={picked}
          onChange={(event) => onPick(event.target.checked)}
        />
      </label>
      <LevelText label={`Line of ${name}`} text={text} onRead={onRead} />
      {node.type === "repeat" ? (
        <>
          <Stepper
            label="Times"
            value={node.count}
            min={1}
            max={MOST_ROUNDS}
            show={String}
            read={readCount}
            step={() => 1}
            {...moves([...path, "count"])}
          />
          <Stepper
            label="Rest between"
            value={node.between?.seconds ?? 0}
            min={0}
            max={LONGEST_S}
            show={clock}
            read={readClock}
            step={stepOf}
            {...moves([...path, "between"], (seconds) =>
              seconds ? { ...(node.between ?? { type: "interval", tempo: "rest" }), seconds } : null,
            )}
          />
        </>
      ) : (
        <>
          {node.seconds != null && (
            <Stepper
              label="Time"
              value={node.seconds}
              min={1}
              max={LONGEST_S}
              show={clock}
              read={readClock}
              step={stepOf}
              {...moves([...path, "seconds"])}
            />
          )}
          <Choice
            label="Effort"
            value={node.tempo}
            options={tempos.map((tempo) => ({ id: tempo.id, name: tempo.word }))}
            onChange={(tempo) => onSet([...path, "tempo"], tempo)}
          />
          {node.tempo !== "rest" && (
            <Choice
              label="Sides"
              value={String(node.switch ?? "")}
              none="as they stand"
              options={[
                { id: "half", name: "switch at half" },
                { id: "call", name: "switch on call" },
                ...(typeof node.switch === "number"
                  ? [{ id: String(node.switch), name: `switch every ${clock(node.switch)}` }]
                  : []),
              ]}
              onChange={(sides) => onSet([...path, "switch"], sides || null)}
            />
          )}
        </>
      )}
    </li>
  );
}
