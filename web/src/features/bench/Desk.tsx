import { useCallback, useEffect, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { drawnOf } from "../../charts/columns/drawn";
import { Score } from "../../charts/score/Score";
import { asText, type Draft, type Kept } from "../../domain/session/draft";
import { mainRow } from "../../domain/session/toLay";
import { newPart, type Part } from "../../domain/session/tree";
import { Keys } from "../../ui/Keys";
import { Claims } from "./Claims";
import { Conflict } from "./Conflict";
import { Compare } from "./compare/Compare";
import { Empty } from "./Empty";
import { Head } from "./Head";
import { History } from "./History";
import { keepHeat, recallHeat } from "./heat";
import { KEYS } from "./keys";
import { Nudges } from "./Nudges";
import { Outline } from "./Outline";
import { Proposals } from "./propose/Proposals";
import { useProposals } from "./propose/useProposals";
import { Said } from "./Said";
import { SeveralBar } from "./SeveralBar";
import { Scale } from "./scale/Scale";
import { withEffort, withPurpose } from "./several";
import { useDraft } from "./useBench";
import { useBrought } from "./useBrought";
import { useAhead, useEvaluation } from "./useEvaluation";
import { useKeys } from "./useKeys";
import { useNudges } from "./useNudges";
import { useRows } from "./useRows";
import { useSaving } from "./useSaving";
import { VerdictSheet } from "./VerdictSheet";

type View = { kind: "desk" } | { kind: "compare"; first: string | null } | { kind: "scale" } | { kind: "history" };
const DESK: View = { kind: "desk" };
const NOBODY = "nobody in particular";

interface DeskProps {
  sessionId: number | null;
  start: Kept;
  vocabulary: Schemas["Vocabulary"];
  people: Schemas["PersonOut"][];
}

/** The session in hand: its score, its outline and its verdict, and everything that is done to it. */
export function Desk({ sessionId, start, vocabulary, people }: DeskProps) {
  const [wbgt, setWbgt] = useState(recallHeat);
  const bench = useDraft(start, sessionId, useAhead(wbgt));
  const { draft, edit } = bench;
  const { evaluation, guessing, away, refused, retry } = useEvaluation(draft, wbgt);
  const [view, setView] = useState<View>(DESK);
  const [lit, setLit] = useState<string | null>(null);
  const [unfolded, setUnfolded] = useState<ReadonlySet<number>>(new Set());
  const [said, setSaid] = useState<string | null>(
    start.savedText !== null && asText(start.draft) !== start.savedText
      ? "These changes were kept on this device and are not saved yet."
      : null,
  );

  const rows = useRows(bench, start, setSaid);
  const { parts, chosen, open, choose, typing, lay } = rows;
  const saving = useSaving(sessionId, bench, typing.waiting, setSaid);
  const { save, theirs } = saving;

  const navigate = useNavigate();
  useBrought(bench, choose, setSaid);

  /** Another session in the place of what lies here, with a word on it; undo brings this one back. */
  function put(next: Partial<Draft>, words: string) {
    bench.setTyped(null);
    edit(next);
    // Where rows have come or gone, the one in hand is another.
    if (next.document && next.document.parts.length !== parts.length) choose(mainRow(next.document), false);
    setView(DESK);
    setSaid(words);
  }

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

  const hasParts = parts.length > 0;
  const judged = hasParts && evaluation?.reading ? evaluation : null;
  const places = [
    { word: "Compare", key: "c", can: hasParts, open: () => setView({ kind: "compare", first: null }) },
    { word: "Scale", key: "s", can: judged !== null, open: () => setView({ kind: "scale" }) },
    { word: "History", key: "h", can: sessionId !== null, open: () => setView({ kind: "history" }) },
    { word: "Print", key: "i", can: hasParts, open: () => window.print() },
  ];
  const unfold = (all: boolean) => setUnfolded(new Set(all ? parts.keys() : []));

  useKeys({
    parts: parts.length,
    chosen,
    choose,
    open,
    addPart: () => rows.add(),
    double: rows.double,
    remove: rows.remove,
    moveTo: rows.moveTo,
    pick: rows.pick,
    unfold,
    undo: bench.undo,
    redo: bench.redo,
    save: () => keepIt(false),
    run: () => runIt(),
    propose: proposals.open,
    places,
    quiet: proposals.shown !== null || view !== DESK,
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
  const onOpen = useCallback((part: number) => choose(part, true), [choose]);
  const wordOf = useCallback(
    (tempo: string) => vocabulary.tempos.find((each) => each.id === tempo)?.word ?? tempo,
    [vocabulary.tempos],
  );
  const unsaved = bench.dirty || sessionId === null;
  const waitsForNetwork = save.failureCount > 0;
  const saveWord = save.isPending
    ? waitsForNetwork
      ? "Waiting for the network …"
      : "Saving …"
    : unsaved
      ? "Save"
      : "Saved";
  const target = vocabulary.targets.find((each) => each.id === draft.target);
  const purpose = target?.name ?? draft.target;
  const person = people.find((each) => each.id === draft.personId)?.name ?? NOBODY;
  const now = judged && drawnOf(draft.document.title, judged);

  // A quarter longer than now at the most, or as long as the coach allows.
  const mostMinutes = Math.max(proposals.limits.minutes, Math.ceil((1.25 * (evaluation?.total_s ?? 0)) / 60));
  const asked = useMemo(
    () => ({
      document: draft.document,
      person_id: draft.personId,
      target: draft.target,
      wbgt_c: wbgt,
      minutes: Math.min(240, mostMinutes),
    }),
    [draft.document, draft.personId, draft.target, wbgt, mostMinutes],
  );
  const nudges = useNudges(asked, judged !== null).data;
  const cureOf = (rule: string) => {
    const nudge = nudges?.find((each) => each.cures.includes(rule));
    if (!nudge) return undefined;
    const words = `Applied: ${nudge.name}. Ctrl Z takes it back.`;
    return { name: nudge.name, apply: () => put({ document: nudge.document }, words) };
  };

  if (proposals.shown) {
    return (
      <Proposals
        proposals={proposals.shown}
        now={now}
        purpose={purpose}
        person={person}
        limits={proposals.limits}
        vocabulary={vocabulary}
        searching={proposals.searching}
        said={proposals.refused}
        onLimits={proposals.setLimits}
        onTake={take}
        onClose={proposals.close}
      />
    );
  }
  if (view.kind === "compare") {
    return (
      <Compare
        sessionId={sessionId}
        draft={draft}
        person={person}
        first={view.first}
        onTake={put}
        onClose={() => setView(DESK)}
      />
    );
  }
  if (view.kind === "scale" && now) {
    return (
      <Scale
        asked={{ document: draft.document, person_id: draft.personId, target: draft.target }}
        now={now}
        person={person}
        people={people}
        rules={vocabulary.rules}
        onTake={(scaled) =>
          put(
            { document: scaled.document, personId: scaled.person_id ?? draft.personId },
            `For ${scaled.name}. ${scaled.steps.length ? `Changed: ${scaled.steps.join(", ")}.` : "It fits as it is."} Ctrl Z brings back what was here.`,
          )
        }
        onCopy={(scaled) => {
          const title = `${draft.document.title.slice(0, 70)}, ${scaled.name}`.slice(0, 120);
          const document = { ...scaled.document, title };
          navigate("/bench", {
            state: {
              lay: {
                kind: "session",
                document,
                target: draft.target,
                said: `For ${scaled.name}. Save it, and it stands in the library.`,
              },
            },
          });
        }}
        onClose={() => setView(DESK)}
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
          save={{ word: saveWord, can: !save.isPending && unsaved && !theirs }}
          canRun={hasParts && !save.isPending && !theirs}
          onEdit={edit}
          onMinutes={(minutes) => proposals.setLimits({ ...proposals.limits, minutes })}
          onPropose={proposals.open}
          onSave={() => keepIt(false)}
          onRun={runIt}
          places={places}
        />
        <Said
          away={away || (save.isPending && waitsForNetwork)}
          text={(theirs ? null : save.error?.message) ?? said}
          onClose={() => {
            setSaid(null);
            proposals.close();
          }}
        />
        {theirs && (
          <Conflict
            savedAt={theirs.saved_at}
            said={saving.refused?.message ?? null}
            busy={saving.merging || save.isPending}
            onMerge={saving.merge}
            onCopy={() => send({ copy: true })}
            onTheirs={saving.takeTheirs}
          />
        )}
        {view.kind === "history" && sessionId !== null && (
          <History
            sessionId={sessionId}
            onCompare={(revision) => setView({ kind: "compare", first: `v${revision}` })}
            onRestore={put}
            onClose={() => setView(DESK)}
          />
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
            <div className="mt-3 min-h-[366px]">
              {evaluation && evaluation.parts.length === parts.length ? (
                <Score
                  evaluation={evaluation}
                  names={names}
                  open={chosen}
                  unfolded={unfolded}
                  lit={litSet}
                  onOpen={onOpen}
                  wordOf={wordOf}
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
              {rows.picked && (
                <SeveralBar
                  count={rows.picked.size}
                  tempos={vocabulary.tempos}
                  purposes={vocabulary.purposes}
                  onDouble={rows.doublePicked}
                  onRemove={rows.removePicked}
                  onJoin={rows.joinPicked}
                  onPurpose={(purpose) =>
                    rows.changePicked((all, picked) => withPurpose(all, picked, purpose as Part["purpose"]))
                  }
                  onEffort={(tempo) =>
                    rows.changePicked((all, picked) =>
                      withEffort(
                        all,
                        picked,
                        tempo,
                        (id) => vocabulary.tempos.find((t) => t.id === id)?.kind === "work",
                      ),
                    )
                  }
                  onDone={rows.pickNone}
                />
              )}
              <Outline
                parts={parts}
                evaluation={evaluation}
                tempos={vocabulary.tempos}
                purposes={vocabulary.purposes}
                chosen={chosen}
                open={open}
                picked={rows.picked}
                typed={bench.typed}
                typing={typing}
                onTyped={bench.setTyped}
                onChoose={choose}
                onPick={rows.pick}
                onChange={rows.setPart}
                onLay={lay}
                onDouble={rows.double}
                onRemove={rows.remove}
                onDrag={rows.moveTo}
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
              {parts.length > 1 && (
                <>
                  <button type="button" className="link min-h-[30px]" onClick={rows.pickNone}>
                    {rows.picked ? "Single rows" : "Pick several"}
                  </button>
                  <button type="button" className="link min-h-[30px]" onClick={() => unfold(unfolded.size === 0)}>
                    {unfolded.size ? "Fold the score" : "Unfold the score"}
                  </button>
                </>
              )}
              <span className="quiet hidden min-[1100px]:inline">↑↓ row · Enter open · D double · Ctrl S save</span>
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
            guessing={guessing}
            cureOf={cureOf}
            onWbgt={(next) => {
              keepHeat(next);
              setWbgt(next);
            }}
          >
            <Nudges
              asked={asked}
              partNames={names}
              purpose={purpose}
              onApply={(document, words) => put({ document }, words)}
            />
            <Claims asked={{ document: draft.document, person_id: draft.personId }} targets={vocabulary.targets} />
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
