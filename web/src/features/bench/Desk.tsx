import { useCallback, useEffect, useMemo, useReducer, useState } from "react";
import type { Schemas } from "../../api/client";
import { drawnOf } from "../../charts/columns/drawn";
import type { Draft, Kept } from "../../domain/session/draft";
import { mainRow } from "../../domain/session/toLay";
import { SendOut } from "../../ui/SendOut";
import { usePrinting } from "../../ui/usePrinting";
import { Ask } from "./Ask";
import { Conflict } from "./Conflict";
import { DeskSheet } from "./DeskSheet";
import { deskOf, reduce, type View } from "./deskState";
import { Empty } from "./Empty";
import { Head } from "./Head";
import { History } from "./History";
import { keepHeat, recallHeat } from "./heat";
import { Looking } from "./Looking";
import { Over } from "./Over";
import { useProposals } from "./propose/useProposals";
import { Rows } from "./Rows";
import { Said } from "./Said";
import { ScorePlace } from "./ScorePlace";
import { Stale } from "./Stale";
import { useDraft } from "./useBench";
import { useBenchKeys } from "./useBenchKeys";
import { useBrought } from "./useBrought";
import { useAhead, useEvaluation } from "./useEvaluation";
import { useNudges } from "./useNudges";
import { useRows } from "./useRows";
import { useSaving } from "./useSaving";

/** Another person or purpose than is saved, to see what would be. */
type Look = Partial<Pick<Draft, "personId" | "target">>;
/** On paper every part has its share of the width. */
const FOLDED: ReadonlySet<number> = new Set();
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
  const [look, setLook] = useState<Look>({});
  const ahead = useAhead(wbgt);
  const bench = useDraft(
    start,
    sessionId,
    useCallback((next: Draft) => ahead({ ...next, ...look }), [ahead, look]),
  );
  const { draft, edit } = bench;
  const seen = useMemo(() => ({ ...draft, ...look }), [draft, look]);
  const { evaluation, names, summaries, guessing, away, refused, retry } = useEvaluation(seen, wbgt);
  const [desk, dispatch] = useReducer(reduce, start, deskOf);
  const { view, chosen, open, wanted } = desk;
  const rows = useRows(bench, sessionId, desk, dispatch);
  const { parts, choose, say, typing, lay } = rows;
  const unread = typing.refused ? "the line that cannot be read yet" : null;
  /** What everything that is worked out stands from before. */
  const before = unread ?? (refused ? "the change that cannot be worked out" : null);
  const saving = useSaving(sessionId, bench, typing.waiting, say);
  const { save, theirs } = saving;

  const printing = usePrinting();

  const toDesk = () => dispatch({ do: "show", view: { kind: "desk" } });
  const brought = useBrought(bench, choose, say);

  const looking = seen.personId !== draft.personId || seen.target !== draft.target;
  /** On a saved session another person or purpose is only looked at, until it is kept. */
  function change(next: Partial<Draft>) {
    const tried = "personId" in next || "target" in next;
    if (sessionId === null || !tried) edit(next);
    else setLook({ ...look, ...next });
  }

  /** Another session in the place of what lies here, with a word on it; undo brings this one back. */
  function put(next: Partial<Draft>, words: string) {
    bench.setTyped(null);
    edit(next);
    if (next.target) setLook({});
    // Where rows have come or gone, the one in hand is another.
    if (next.document && next.document.parts.length !== parts.length) choose(mainRow(next.document), false);
    toDesk();
    say(words);
  }

  const proposals = useProposals({ target: seen.target, person_id: seen.personId, wbgt_c: wbgt }, say);
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
    say(`${proposal.why} Source: ${proposal.source}. Ctrl Z brings back what was here.`);
  };

  const hasParts = parts.length > 0;
  const judged = hasParts && evaluation?.reading ? evaluation : null;
  const show = (next: View) => dispatch({ do: "show", view: next });
  const places = {
    compare: hasParts ? () => show({ kind: "compare", first: null }) : undefined,
    scale: judged ? () => show({ kind: "scale" }) : undefined,
    history: sessionId === null ? undefined : () => show({ kind: "history" }),
    print: hasParts ? () => window.print() : undefined,
    sendOut: sessionId === null || !hasParts ? undefined : () => show({ kind: "sendOut" }),
  };
  const unfold = (all: boolean) => dispatch({ do: "unfold", parts: all ? parts.length : 0 });

  useBenchKeys({
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
    quiet: proposals.shown !== null || view.kind !== "desk",
  });

  const { mutate: send } = save;
  useEffect(() => {
    if (!wanted || (typing.waiting && !typing.refused && !typing.several)) return;
    if (typing.several) return lay();
    dispatch({ do: "want", save: null });
    if (typing.refused) say("A line cannot be read yet. Mend it, or leave it as it was, and then save.");
    else send(wanted);
  }, [wanted, typing, lay, send, say]);

  /** Save, once the line that is being typed has been read. */
  function keepIt(andRun: boolean) {
    dispatch({ do: "want", save: { andRun } });
  }
  function runIt() {
    if (parts.length) keepIt(true);
  }

  const litSet = useMemo(() => {
    const reason = evaluation?.reading?.verdict.reasons.find((each) => each.measure === desk.lit);
    return new Set(reason?.intervals);
  }, [desk.lit, evaluation]);
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
  const target = vocabulary.targets.find((each) => each.id === seen.target);
  const purposeOf = (id: string) => vocabulary.targets.find((each) => each.id === id)?.name ?? id;
  const nameOf = (id: number | null) => people.find((each) => each.id === id)?.name ?? NOBODY;
  const [purpose, person] = [purposeOf(seen.target), nameOf(seen.personId)];
  const now = judged && drawnOf(draft.document.title, judged);

  // A quarter longer than now at the most, or as long as the coach allows.
  const mostMinutes = Math.max(proposals.limits.minutes, Math.ceil((1.25 * (evaluation?.total_s ?? 0)) / 60));
  const asked = useMemo(
    () => ({
      document: seen.document,
      person_id: seen.personId,
      target: seen.target,
      wbgt_c: wbgt,
      minutes: Math.min(240, mostMinutes),
    }),
    [seen, wbgt, mostMinutes],
  );
  const nudges = useNudges(asked, judged !== null);
  const over = proposals.shown !== null || view.kind === "compare" || (view.kind === "scale" && now);
  if (over) {
    return (
      <Over
        sessionId={sessionId}
        view={view}
        draft={seen}
        now={now}
        purpose={purpose}
        person={person}
        people={people}
        vocabulary={vocabulary}
        proposals={proposals}
        onTake={take}
        onPut={put}
        onClose={toDesk}
      />
    );
  }
  return (
    <main className="grid min-[1100px]:grid-cols-[minmax(0,1fr)_316px]">
      <div className="min-w-0 px-4 pt-[18px] min-[900px]:px-6">
        <Head
          sessionId={sessionId}
          draft={seen}
          people={people}
          targets={vocabulary.targets}
          minutes={proposals.limits.minutes}
          proposing={proposals.searching}
          save={{ word: saveWord, can: !save.isPending && unsaved && !theirs }}
          canRun={hasParts && !save.isPending && !theirs}
          onEdit={change}
          onMinutes={(minutes) => proposals.setLimits({ ...proposals.limits, minutes })}
          onPropose={proposals.open}
          onSave={() => keepIt(false)}
          onRun={runIt}
          places={places}
        />
        <Said
          away={away || (save.isPending && waitsForNetwork)}
          text={(theirs ? null : save.error?.message) ?? desk.said}
          onClose={() => {
            say(null);
            proposals.close();
          }}
        />
        {looking && (
          <Looking
            savedFor={`${nameOf(draft.personId)}, ${purposeOf(draft.target)}`}
            onKeep={() => {
              edit(look);
              setLook({});
            }}
            onBack={() => setLook({})}
          />
        )}
        {brought.asking && (
          <Ask
            title={brought.title}
            brought={brought.asking.kind === "session" ? brought.asking.document.title : "a new session"}
            busy={brought.saving}
            said={brought.refused}
            onSave={brought.saveFirst}
            onReplace={brought.replace}
            onStay={brought.stay}
          />
        )}
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
        {view.kind === "sendOut" && sessionId !== null && (
          <SendOut
            session={{ id: sessionId, title: draft.document.title, personId: draft.personId }}
            onClose={() => show({ kind: "desk" })}
          />
        )}
        {view.kind === "history" && sessionId !== null && (
          <History
            sessionId={sessionId}
            forWhom={(version) => `${nameOf(version.person_id ?? null)}, ${purposeOf(version.target)}`}
            onCompare={(revision) => show({ kind: "compare", first: `v${revision}` })}
            onRestore={put}
            onClose={() => toDesk()}
          />
        )}
        {rows.rows.length === 0 ? (
          <Empty examples={vocabulary.examples} onPropose={proposals.open} onType={rows.add} onAdd={() => rows.add()} />
        ) : (
          <>
            <Stale before={unread}>
              <ScorePlace
                evaluation={evaluation}
                names={names}
                open={printing ? null : chosen}
                unfolded={printing ? FOLDED : desk.unfolded}
                lit={litSet}
                refused={refused}
                onOpen={onOpen}
                onRetry={retry}
                wordOf={wordOf}
              />
            </Stale>
            <Rows
              bench={bench}
              desk={desk}
              rows={rows}
              evaluation={evaluation}
              summaries={summaries}
              before={before}
              vocabulary={vocabulary}
              onUnfold={unfold}
            />
          </>
        )}
      </div>
      <DeskSheet
        before={before}
        evaluation={evaluation}
        asked={asked}
        nudges={nudges}
        names={names}
        target={target}
        targets={vocabulary.targets}
        guessing={guessing}
        onPut={put}
        onLight={(measure) => dispatch({ do: "light", measure })}
        onWbgt={(next) => {
          keepHeat(next);
          setWbgt(next);
        }}
      />
    </main>
  );
}
