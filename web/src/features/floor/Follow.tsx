import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { liveRuns, planOfRun } from "../../api/queries";
import { type Board, inWave, waveAt } from "../../domain/clock/board";
import { beatAt, type Factor, shownPulse } from "../../domain/clock/pulse";
import { isRunning, position, type Run } from "../../domain/clock/run";
import { nowMs } from "../../domain/clock/steady";
import { stepAt, untilStep_ms } from "../../domain/clock/view";
import { Notice } from "../../ui/Notice";
import { useScreenAwake } from "../../ui/useScreenAwake";
import { Ahead } from "./Ahead";
import { ClassBoard } from "./ClassBoard";
import { Pulse } from "./controls";
import { drawing } from "./drawing";
import { Coming, Digits, Ground, Hall, Sides, shownOf, Top } from "./face";
import { onThisClock, type Said } from "./follow";
import { Strip } from "./marks";
import { People, turnOf } from "./People";
import { calledStroke, Showing } from "./Showing";

/** A run on another screen of the club, such as the hall's: which, if there are several. */
export function Screens() {
  const query = useQuery({ ...liveRuns, refetchInterval: 2000 });
  const found = query.data ?? [];
  const [only] = found;
  if (only && found.length === 1) return <Followed key={only.run_id} runId={only.run_id} />;
  if (!query.data) return <Notice asked={query} title="Looking for a run" />;
  if (found.length === 0) {
    return (
      <Notice
        title="Nothing runs just now"
        text="Start a session on the floor, on any device of the club: it shows here by itself."
      >
        <Link className="act" to="/library">
          Go to the library
        </Link>
      </Notice>
    );
  }
  return (
    <Notice title="Several run just now" text="Which of them should this screen follow?">
      {found.map((run) => (
        <Link key={run.run_id} className="act main" to={`/screen/${run.run_id}`}>
          {run.title}
        </Link>
      ))}
    </Notice>
  );
}

export function Screen() {
  const { runId = "" } = useParams();
  return <Followed key={runId} runId={runId} />;
}

/** What the device that runs it has said last, and whether its words still come. */
function useSaid(runId: string): { said: { said: Said; at: number } | null; lost: boolean } {
  const [said, setSaid] = useState<{ said: Said; at: number } | null>(null);
  const [lost, setLost] = useState(false);
  useEffect(() => {
    const source = new EventSource(`/api/live/${runId}/events`);
    source.onopen = () => setLost(false);
    source.onmessage = (event) => {
      setLost(false);
      setSaid({ said: JSON.parse(event.data) as Said, at: nowMs() });
    };
    source.onerror = () => setLost(true);
    return () => source.close();
  }, [runId]);
  return { said, lost };
}

function Followed({ runId }: { runId: string }) {
  const { said, lost } = useSaid(runId);
  const plan = useQuery(planOfRun(runId, said?.said.state.board ?? 0));
  if (plan.error) return <Notice title="This run cannot be followed" text={plan.error.message} />;
  if (!plan.data || !said) return <Notice waiting lost={lost} title="Joining the run" />;
  const run = onThisClock(said.said, said.at, plan.data.count_in_s);
  return <Face plan={plan.data} run={run} state={said.said.state} lost={lost} />;
}

interface BoardFaceProps {
  plan: Schemas["RunPlan"];
  board: Board;
  shown: ReturnType<typeof shownOf>;
  at: number;
  lost: boolean;
}

/** The second screen of a class: the board, with the time over it; what is shown takes its place while it is shown. */
function BoardFace({ plan, board, shown, at, lost }: BoardFaceProps) {
  const { now, held, lit } = shown;
  const wave = waveAt(board, at);
  const showing = now.piece?.tempo === "show" ? now.piece : null;
  const phase = held ? "HELD" : (shown.called ?? shown.phase);
  return (
    <Hall shown={shown}>
      <div className="flex items-end justify-between gap-6 px-4 pt-2 wide:px-[3vw]">
        <span className="flex h-[13vh] w-[26vw] items-end [container-type:size]">
          <Digits shown={shown} />
        </span>
        <span className="min-w-0 flex-1 truncate text-[min(9vh,7vw)] leading-none font-bold">{phase}</span>
        <span className="text-right text-[min(5.4vh,4.4vw)] leading-[1.05] font-semibold whitespace-nowrap">
          {standsAt(board, wave, at)}
        </span>
      </div>
      <Ground now={now} lit={lit} held={held} />
      {showing ? (
        <div className="flex min-h-0 flex-1 items-center px-12">
          <Showing piece={showing} now={calledStroke(plan.calls, showing, at)} />
        </div>
      ) : (
        <ClassBoard board={board} at={at} />
      )}
      <p className="flex justify-between gap-4 px-5 pt-1 pb-3 text-[18px] opacity-80 wide:px-12 wide:text-[20px]">
        <span>{lost ? <span className="seal">Off line</span> : "The board"}</span>
        <span className="truncate">{plan.title}</span>
      </p>
    </Hall>
  );
}

function standsAt(board: Board, wave: number, at: number): string {
  const { length } = board.waves;
  if (wave === 0) return `${length} ${length === 1 ? "wave" : "waves"} to come`;
  if (inWave(board, at)) return `Wave ${wave} of ${length}`;
  return wave < length ? `Change to wave ${wave + 1}` : "All waves done";
}

interface FaceProps {
  plan: Schemas["RunPlan"];
  run: Run;
  state: Schemas["ClockState"];
  lost: boolean;
}

function Face({ plan, run, state, lost }: FaceProps) {
  const [, tick] = useState(0);
  const running = isRunning(run);
  useEffect(() => {
    if (!running) return;
    return drawing(() => {
      // Also while the clock stands for what is not done yet: its length grows.
      const at_s = run.anchor_s + (nowMs() - (run.anchorMs ?? 0)) / 1000;
      tick(stepAt(at_s));
      return untilStep_ms(at_s);
    });
  }, [running, run]);
  useScreenAwake(running);
  const at = stepAt(Math.min(plan.total_s, position(run, nowMs())));
  const shown = shownOf(plan, run, at);
  const { now, started, held, lit } = shown;
  const beat = held ? null : beatAt(now.piece, at, shownPulse(now.piece, state.pulse as Factor));
  if (plan.board) return <BoardFace plan={plan} board={plan.board} shown={shown} at={at} lost={lost} />;
  return (
    <Hall shown={shown}>
      <Top shown={shown} />
      <div className="grid min-h-0 flex-1 items-end wide:grid-cols-[52%_1fr] wide:grid-rows-[minmax(0,1fr)]">
        <span className="flex h-full w-full items-end [container-type:size]">
          <Digits shown={shown} />
        </span>
        <Ahead plan={plan} now={now} beat={beat} at={at} />
      </div>
      <Ground now={now} lit={lit} held={held} />
      <Sides piece={now.piece} at={at} />
      <Pulse beat={beat} eights={now.piece?.music_per_min != null} />
      {started && <Ahead plan={plan} now={now} beat={beat} at={at} compact />}
      <People people={state.people ?? []} piece={now.piece} shift={run.shift} />
      <Coming plan={plan} shown={shown} at={at} next={turnOf(state.people ?? [], now.next, run.shift)} />
      <div className="px-5 pb-4 wide:px-12">
        <Strip plan={plan} at={at} />
        <p className="flex justify-between gap-4 pt-2 text-[18px] opacity-80 wide:text-[20px]">
          <span>{lost ? <span className="seal">Off line</span> : "Second screen"}</span>
          <span className="truncate">{plan.title}</span>
        </p>
      </div>
    </Hall>
  );
}
