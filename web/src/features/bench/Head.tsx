import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { campOf, classOf } from "../../api/queries";
import { nameAndSport } from "../../domain/person";
import type { Draft } from "../../domain/session/draft";
import { BENCH, keyOf } from "../../ui/keymap";
import { Stepper } from "../../ui/Stepper";

interface Props {
  /** Null before it is saved. */
  sessionId: number | null;
  draft: Draft;
  people: Schemas["PersonOut"][];
  targets: Schemas["TargetOut"][];
  minutes: number;
  proposing: boolean;
  /** What the save key says, and whether it can be pressed. */
  save: { word: string; can: boolean };
  canRun: boolean;
  onEdit: (change: Partial<Draft>) => void;
  onMinutes: (minutes: number) => void;
  onPropose: () => void;
  onSave: () => void;
  onRun: () => void;
  /** What opens each further place, where it can be opened now. */
  places: Places;
}

/** Where the session stands in a camp, with the way back to it. */
function OfCamp({ sessionId }: { sessionId: number }) {
  const camp = useQuery(campOf(sessionId)).data;
  if (!camp) return null;
  return (
    <p className="quiet text-[13px]">
      {camp.week > 0 ? `Week ${camp.week} of ${camp.weeks}` : "Outside its weeks"}, {camp.knob}:{" "}
      <Link className="link" to={`/camp/${camp.camp_id}`}>
        camp of {camp.who}
      </Link>
    </p>
  );
}

/** The class that a session is of: there its waves are worked out. */
function OfClass({ sessionId }: { sessionId: number }) {
  const found = useQuery(classOf(sessionId)).data;
  if (!found) return null;
  return (
    <p className="quiet text-[13px]">
      Of a class, which works it out anew:{" "}
      <Link className="link" to={`/class/${found.class_id}`}>
        {found.title}
      </Link>
    </p>
  );
}

export type Places = Record<keyof typeof PLACES, (() => void) | undefined>;
const PLACES = { compare: "Compare", scale: "Scale", history: "History", print: "Print", sendOut: "Send out" };

/** The head of the bench: title and person, purpose and minutes, and the three keys. */
export function Head(props: Props) {
  const {
    sessionId,
    draft,
    people,
    targets,
    minutes,
    proposing,
    save,
    canRun,
    onEdit,
    onMinutes,
    onPropose,
    onSave,
    onRun,
    places,
  } = props;
  return (
    <header className="flex flex-wrap items-start justify-between gap-x-4 gap-y-3">
      <div className="min-w-[260px] flex-1">
        <h1>
          <input
            aria-label="Title"
            className="w-full border-b border-transparent bg-transparent hover:border-[var(--rule-2)]"
            value={draft.document.title}
            maxLength={120}
            onChange={(event) =>
              onEdit({ document: { ...draft.document, title: event.target.value || "New session" } })
            }
          />
        </h1>
        <div className="flex flex-wrap items-baseline gap-x-3">
          <label className="quiet">
            for{" "}
            <select
              className="max-w-[260px] cursor-pointer bg-transparent py-1 underline decoration-[var(--rule-2)] underline-offset-4 font-semibold text-[var(--ink)]"
              value={draft.personId ?? ""}
              onChange={(event) => onEdit({ personId: event.target.value ? Number(event.target.value) : null })}
            >
              <option value="">nobody in particular</option>
              {draft.personId !== null && !people.some((person) => person.id === draft.personId) && (
                <option value={draft.personId}>somebody who is archived</option>
              )}
              {people.map((person) => (
                <option key={person.id} value={person.id}>
                  {nameAndSport(person)}
                </option>
              ))}
            </select>
          </label>
          <Tags tags={draft.tags} onTags={(tags) => onEdit({ tags })} />
        </div>
        {sessionId !== null && <OfCamp sessionId={sessionId} />}
        {sessionId !== null && <OfClass sessionId={sessionId} />}
      </div>
      <div>
        <div className="flex flex-wrap items-end gap-2">
          <label className="label-text">
            <span className="block pb-1">Purpose</span>
            <select
              className="field h-[30px] min-h-0 w-[138px] cursor-pointer py-0 max-[899px]:h-[44px]"
              value={draft.target}
              onChange={(event) => onEdit({ target: event.target.value as Schemas["SessionIn"]["target"] })}
            >
              {targets.map((target) => (
                <option key={target.id} value={target.id}>
                  {target.name}
                </option>
              ))}
            </select>
          </label>
          <span className="no-print">
            <Stepper
              label="Minutes to propose"
              value={minutes}
              min={4}
              max={120}
              show={String}
              read={(text) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : null)}
              step={() => 5}
              onChange={onMinutes}
            />
          </span>
          <button type="button" className="act" disabled={proposing} onClick={onPropose}>
            {proposing ? (
              "Searching …"
            ) : (
              <span>
                <u>P</u>ropose
              </span>
            )}
          </button>
          {/* As wide as its longest word by itself: nothing beside it moves while it saves. */}
          <button type="button" className="act min-w-[88px]" disabled={!save.can} onClick={onSave}>
            {save.word}
          </button>
          <button type="button" className="act main" disabled={!canRun} onClick={onRun}>
            <span>
              <u>R</u>un
            </span>
          </button>
        </div>
        <p className="no-print flex justify-end gap-4 pt-[6px] text-[13px] max-[899px]:justify-start max-[899px]:pt-0">
          {(Object.keys(PLACES) as (keyof Places)[]).map((place) => (
            <button
              key={place}
              type="button"
              className="link min-h-[24px] max-[899px]:min-h-[44px]"
              disabled={!places[place]}
              onClick={places[place]}
            >
              <Keyed word={PLACES[place]} letter={keyOf(BENCH, place)} />
            </button>
          ))}
        </p>
      </div>
    </header>
  );
}

/** A word with its key marked in it. */
function Keyed({ word, letter }: { word: string; letter: string }) {
  const at = word.toUpperCase().indexOf(letter);
  return (
    <span>
      {word.slice(0, at)}
      <b className="font-bold">{word[at]}</b>
      {word.slice(at + 1)}
    </span>
  );
}

const MOST_TAGS = 12;
const LONGEST_TAG = 30;

/** Words to find the session by, with commas between. */
function Tags({ tags, onTags }: { tags: string[]; onTags: (tags: string[]) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const settle = () => {
    if (typed === null) return;
    const words = typed.split(",").map((word) => word.trim().slice(0, LONGEST_TAG));
    const next = [...new Set(words.filter(Boolean))].slice(0, MOST_TAGS);
    setTyped(null);
    if (next.join() !== tags.join()) onTags(next);
  };
  return (
    <label className="quiet flex flex-1 items-baseline gap-1">
      tags
      <input
        aria-label="Tags"
        className="min-w-[90px] flex-1 border-b border-transparent bg-transparent py-1 text-[var(--ink)] hover:border-[var(--rule-2)] placeholder:text-[var(--ink-2)]"
        placeholder="none"
        value={typed ?? tags.join(", ")}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={settle}
        onKeyDown={(event) => event.key === "Enter" && settle()}
      />
    </label>
  );
}
