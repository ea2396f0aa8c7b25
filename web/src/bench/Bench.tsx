import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";
import { Refused, type Schemas } from "../api/client";
import { people as peopleQuery, vocabulary as vocabularyQuery } from "../api/queries";
import { Keys } from "../parts/Keys";
import { Notice } from "../parts/Notice";
import { Proposals } from "../propose/Proposals";
import { useProposals } from "../propose/useProposals";
import { Score } from "../score/Score";
import { asText, type Kept } from "./draft";
import { Empty } from "./Empty";
import { Head } from "./Head";
import { keepHeat, recallHeat } from "./heat";
import { Nudges } from "./Nudges";
import { Outline } from "./Outline";
import { Said } from "./Said";
import { laid, mainRow, type ToLay } from "./toLay";
import { newPart } from "./tree";
import { useDraft, useEvaluation, useSave, useStart } from "./useBench";
import { useKeys } from "./useKeys";
import { useRows } from "./useRows";
import { VerdictSheet } from "./VerdictSheet";

/** Design and judgement on one screen. */
export function Bench() {
  const id = useParams().sessionId;
  const sessionId = id === undefined ? null : Number(id);
  return <Opening key={id ?? "new"} sessionId={sessionId} />;
}

function Opening({ sessionId }: { sessionId: number | null }) {
  const { start, error, waitingLong } = useStart(sessionId);
  const vocabulary = useQuery(vocabularyQuery);
  const people = useQuery(peopleQuery);
  if (error) {
    return (
      <Notice title="This session cannot be opened" text={error.message}>
        <Link className="act main" to="/library">
          Go to the library
        </Link>
      </Notice>
    );
  }
  if (!start || !vocabulary.data || !people.data) {
    return <Notice waiting lost={waitingLong || vocabulary.failureCount > 0} title="Laying it on the bench" />;
  }
  return <Desk sessionId={sessionId} start={start} vocabulary={vocabulary.data} people={people.data} />;
}

const KEYS: [string, string][] = [
  ["↑ ↓", "choose a row"],
  ["Enter, Esc", "open it, close it"],
  ["Alt ↑, Alt ↓", "move the row up or down"],
  ["A, D, Delete", "add a part, double it, remove it"],
  ["Tab, + −", "next field, change its value"],
  ["Ctrl Space", "what could come next in a line"],
  [", .", "move the cursor of the score by 5 seconds"],
  ["P", "let protocols be proposed; 1 to 5 takes one"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["Ctrl S, R", "save, run"],
  ["?", "this list"],
];

interface DeskProps {
  sessionId: number | null;
  start: Kept;
  vocabulary: Schemas["Vocabulary"];
  people: Schemas["PersonOut"][];
}

function Desk({ sessionId, start, vocabulary, people }: DeskProps) {
  const bench = useDraft(start, sessionId);
  const { draft, edit } = bench;
  const [wbgt, setWbgt] = useState(recallHeat);
  const { evaluation, away, refused, retry } = useEvaluation(draft, wbgt);
  const save = useSave(sessionId, draft, bench.revision, bench.saved);
  const [lit, setLit] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(
    start.savedText !== null && asText(start.draft) !== start.savedText
      ? "These changes were kept on this device and are not saved yet."
      : null,
  );

  const rows = useRows(bench, start, setSaid);
  const { parts, chosen, open, choose, typing, lay } = rows;

  const place = useLocation();
  const navigate = useNavigate();
  const brought = useRef((place.state as { lay?: ToLay } | null)?.lay ?? null);
  useEffect(() => {
    const lay = brought.current;
    if (!lay) return;
    brought.current = null;
    const next = laid(draft, lay);
    bench.setTyped(null);
    edit(next.draft);
    choose(next.row, true);
    setSaid(lay.said);
    navigate(place.pathname, { replace: true, state: null });
  }, [bench, draft, edit, choose, navigate, place.pathname]);

  const proposals = useProposals({ target: draft.target, person_id: draft.personId }, setSaid);
  const take = (proposal: Schemas["ProposalOut"], mainOnly: boolean) => {
    bench.setTyped(null);
    const at = mainRow(proposal.document);
    const main = proposal.document.parts[at];
    const row = mainOnly ? (chosen ?? parts.length - 1) : at;
    if (mainOnly && main) {
      rows.setParts(parts.toSpliced(row, 1, { ...main, name: parts[row]?.name || main.name }));
    } else {
      const fresh = sessionId === null || parts.length === 0;
      const title = fresh ? proposal.document.title : draft.document.title;
      edit({ document: { ...proposal.document, title } });
    }
    choose(row, true);
    proposals.close();
    setSaid(`${proposal.why} Source: ${proposal.source}. Ctrl Z brings back what was here.`);
  };

  useKeys({
    parts: parts.length,
    chosen,
    choose,
    open,
    addPart: () => rows.add(),
    double: rows.double,
    remove: rows.remove,
    move: rows.move,
    undo: bench.undo,
    redo: bench.redo,
    save: () => keepIt(false),
    run: () => runIt(),
    propose: proposals.open,
    quiet: proposals.shown !== null,
  });

  const [wanted, setWanted] = useState<{ andRun: boolean } | null>(null);
  const { mutate: send } = save;
  useEffect(() => {
    if (!wanted || (typing.waiting && !typing.refused && !typing.several)) return;
    if (typing.several) return lay();
    setWanted(null);
    if (typing.refused) setSaid("A line cannot be read yet. Mend it, or leave it as it was, and then save.");
    else send(wanted);
  }, [wanted, typing, lay, send]);

  /** Save, once the line that is being typed has been read. */
  function keepIt(andRun: boolean) {
    setWanted({ andRun });
  }
  function runIt() {
    if (parts.length) keepIt(true);
  }

  const names = useMemo(() => parts.map((part) => part.name), [parts]);
  const litSet = useMemo(() => {
    const reason = evaluation?.reading?.verdict.reasons.find((each) => each.measure === lit);
    return new Set(reason?.intervals);
  }, [lit, evaluation]);
  const unsaved = bench.dirty || sessionId === null;
  const waitsForNetwork = save.failureCount > 0;
  const saveWord = save.isPending
    ? waitsForNetwork
      ? "Waiting for the network …"
      : "Saving …"
    : unsaved
      ? "Save"
      : "Saved";
  const conflict = save.error instanceof Refused && save.error.status === 409;
  const target = vocabulary.targets.find((each) => each.id === draft.target);
  const purpose = target?.name ?? draft.target;
  if (proposals.shown) {
    return (
      <Proposals
        proposals={proposals.shown}
        now={
          evaluation?.reading && parts.length
            ? {
                title: draft.document.title,
                compared: { ...evaluation, figures: evaluation.reading.figures },
                blocks: evaluation.timeline,
                strokes: evaluation.reading.verdict.strokes,
                traces: evaluation.reading.traces,
              }
            : null
        }
        purpose={purpose}
        person={people.find((person) => person.id === draft.personId)?.name ?? "nobody in particular"}
        limits={proposals.limits}
        means={vocabulary.means.filter((means) => means.struck)}
        searching={proposals.searching}
        said={proposals.refused}
        onLimits={proposals.setLimits}
        onTake={take}
        onClose={proposals.close}
      />
    );
  }
  return (
    <main className="grid min-[1100px]:grid-cols-[minmax(0,1fr)_316px]">
      <div className="min-w-0 px-4 pt-[18px] min-[900px]:px-6">
        <Head
          draft={draft}
          people={people}
          targets={vocabulary.targets}
          minutes={proposals.limits.minutes}
          proposing={proposals.searching}
          save={{ word: saveWord, can: !save.isPending && unsaved }}
          canRun={parts.length > 0 && !save.isPending}
          onEdit={edit}
          onMinutes={(minutes) => proposals.setLimits({ ...proposals.limits, minutes })}
          onPropose={proposals.open}
          onSave={() => keepIt(false)}
          onRun={runIt}
        />
        <Said
          away={away || (save.isPending && save.failureCount > 0)}
          text={(conflict ? null : save.error?.message) ?? said}
          onClose={() => {
            setSaid(null);
            proposals.close();
          }}
        />
        {conflict && (
          <p role="alert" className="mt-2 flex flex-wrap items-center gap-3 border-y border-[var(--ink)] py-2">
            <span className="seal">Closed</span> {save.error?.message}
            <button type="button" className="act" onClick={() => save.mutate({ copy: true })}>
              Save mine as a copy
            </button>
          </p>
        )}
        {parts.length === 0 ? (
          <Empty
            examples={vocabulary.examples}
            onPropose={proposals.open}
            onType={addFromText}
            onAdd={() => rows.add()}
          />
        ) : (
          <>
            <div className="mt-4 min-h-[300px]">
              {evaluation && evaluation.parts.length === parts.length ? (
                <Score
                  evaluation={evaluation}
                  names={names}
                  open={chosen}
                  lit={litSet}
                  onOpen={(part) => choose(part, true)}
                  wordOf={(tempo) => vocabulary.tempos.find((each) => each.id === tempo)?.word ?? tempo}
                />
              ) : refused ? (
                <div className="border border-[var(--rule-2)] p-4">
                  <span className="seal">Stopped</span> <b>The verdict could not be worked out.</b>
                  <p className="pt-1">{refused.message} The session stays here and on this device.</p>
                  <button type="button" className="act mt-3" onClick={() => retry()}>
                    Try again
                  </button>
                </div>
              ) : (
                <p className="quiet pt-10" role="status">
                  Working it out …
                </p>
              )}
            </div>
            <div className="mt-2">
              <Outline
                parts={parts}
                evaluation={evaluation}
                tempos={vocabulary.tempos}
                purposes={vocabulary.purposes}
                chosen={chosen}
                open={open}
                typed={bench.typed}
                typing={typing}
                onTyped={bench.setTyped}
                onChoose={choose}
                onChange={rows.setPart}
                onLay={lay}
                onDouble={rows.double}
                onRemove={rows.remove}
              />
            </div>
            <div className="no-print flex flex-wrap items-center gap-x-5 gap-y-2 py-3 text-[13px]">
              <button type="button" className="act" onClick={() => rows.add()}>
                <span>
                  <u>A</u>dd a part
                </span>
              </button>
              <button type="button" className="act" disabled={!bench.canUndo} onClick={bench.undo}>
                Undo
              </button>
              <button type="button" className="act" disabled={!bench.canRedo} onClick={bench.redo}>
                Redo
              </button>
              <span className="quiet hidden min-[900px]:inline">
                ↑↓ row · Enter open · Tab next field · + − change · D double · , . cursor · Ctrl S save
              </span>
              <Keys title="Keys of the bench" keys={KEYS} />
            </div>
          </>
        )}
      </div>
      <aside className="border-[var(--rule)] bg-[var(--sheet)] max-[1099px]:border-t min-[1100px]:min-h-dvh min-[1100px]:border-l">
        {evaluation && parts.length > 0 ? (
          <VerdictSheet
            evaluation={evaluation}
            targets={vocabulary.targets}
            onLight={setLit}
            wbgt={wbgt}
            somebody={draft.personId !== null}
            onWbgt={(next) => {
              keepHeat(next);
              setWbgt(next);
            }}
          >
            <Nudges
              asked={{
                document: draft.document,
                person_id: draft.personId,
                target: draft.target,
                wbgt_c: wbgt,
                // A quarter longer than now at the most, or as long as the coach allows.
                minutes: Math.min(240, Math.max(proposals.limits.minutes, Math.ceil((1.25 * evaluation.total_s) / 60))),
              }}
              partNames={names}
              purpose={purpose}
              onApply={(document, words) => {
                bench.setTyped(null);
                edit({ document });
                setSaid(words);
              }}
            />
          </VerdictSheet>
        ) : (
          <div className="p-4">
            <h2>No verdict yet</h2>
            <p className="quiet">
              {purpose}: {target?.meaning}.
            </p>
          </div>
        )}
      </aside>
    </main>
  );

  function addFromText(text: string) {
    rows.add(newPart("Main set"));
    bench.setTyped({ part: parts.length, text });
  }
}
