import type { Schemas } from "../../api/client";
import type { Part } from "../../domain/session/tree";
import { Keys } from "../../ui/Keys";
import { BENCH, LEVELS, LINE, SCORE, STEPPER } from "../../ui/keymap";
import type { DeskState } from "./deskState";
import { Outline } from "./Outline";
import { SeveralBar } from "./SeveralBar";
import { withEffort, withPurpose } from "./several";
import type { Bench } from "./useBench";
import type { useRows } from "./useRows";

interface Props {
  bench: Bench;
  desk: DeskState;
  rows: ReturnType<typeof useRows>;
  evaluation: Schemas["Evaluation"] | undefined;
  summaries: (Schemas["PartSummary"] | undefined)[];
  /** What they stand from before. */
  before: string | null;
  vocabulary: Schemas["Vocabulary"];
  onUnfold: (all: boolean) => void;
}

/** The outline, what changes several of its rows, and what is done to all of them. */
export function Rows({ bench, desk, rows, evaluation, summaries, before, vocabulary, onUnfold }: Props) {
  const { picked } = desk;
  const { parts } = rows;
  const isWork = (id: string) => vocabulary.tempos.find((tempo) => tempo.id === id)?.kind === "work";
  return (
    <>
      <div className="mt-2">
        {picked && (
          <SeveralBar
            count={picked.size}
            tempos={vocabulary.tempos}
            purposes={vocabulary.purposes}
            onDouble={rows.doublePicked}
            onRemove={rows.removePicked}
            onJoin={rows.joinPicked}
            onPurpose={(purpose) => rows.changePicked((all, at) => withPurpose(all, at, purpose as Part["purpose"]))}
            onEffort={(tempo) => rows.changePicked((all, at) => withEffort(all, at, tempo, isWork))}
            onDone={rows.pickNone}
          />
        )}
        <Outline
          parts={rows.rows}
          evaluation={evaluation}
          summaries={summaries}
          before={before}
          tempos={vocabulary.tempos}
          purposes={vocabulary.purposes}
          gloves={vocabulary.gloves}
          items={vocabulary.items}
          chosen={desk.chosen}
          open={desk.open}
          picked={picked}
          typed={bench.typed}
          typing={rows.typing}
          onTyped={bench.setTyped}
          onChoose={rows.choose}
          onPick={rows.pick}
          onChange={rows.setPart}
          onAhead={rows.aheadPart}
          onLay={rows.lay}
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
              {picked ? "Single rows" : "Pick several"}
            </button>
            <button type="button" className="link min-h-[30px]" onClick={() => onUnfold(desk.unfolded.size === 0)}>
              {desk.unfolded.size ? "Fold the score" : "Unfold the score"}
            </button>
          </>
        )}
        <span className="quiet hidden min-[1100px]:inline">↑↓ row · Enter open · D double · Ctrl S save</span>
        <Keys places={[BENCH, LEVELS, STEPPER, LINE, SCORE]} />
      </div>
    </>
  );
}
