import type { Schemas } from "../../api/client";
import shared from "../../api/shared.json";
import { inPairs } from "../../domain/clock/crew";
import { clock } from "../../domain/time";
import { Choice } from "../../ui/Choice";
import { Tick } from "../../ui/Tick";
import { CrewEditor } from "./CrewEditor";
import { EmergencyNumber } from "./EmergencyNumber";
import { Gate } from "./Gate";
import type { useCrew } from "./useCrew";
import type { useDevices } from "./useDevices";
import type { useGate } from "./useGate";

type Kind = Schemas["CallSettings"]["muted"][number];

const WORDS: [Kind, string][] = [
  ["next", "what comes next"],
  ["effort", "the effort"],
  ["combination", "the combination again"],
  ["switch", "change of sides"],
  ["cue", "repeating cues"],
  ["half", "half way"],
  ["time", "time left"],
  ["move", "who goes where"],
  ["swap", "swap of partners"],
  ["kit", "changes of kit"],
];
const SOUNDS: [Kind, string][] = [
  ["bell", "bell"],
  ["clack", "clack at ten seconds"],
  ["count", "three, two, one"],
  ["pulse", "pulse, where T beats one"],
];
const EVERY = [15, 20, 30, 45, 60].map((seconds) => ({ id: String(seconds), name: `every ${clock(seconds)}` }));

interface Props {
  plan: Schemas["RunPlan"];
  settings: Schemas["CallSettings"];
  /** All that is said is on this device. */
  voiced: boolean;
  failed: string | null;
  crew: ReturnType<typeof useCrew>;
  gate: ReturnType<typeof useGate>;
  devices: ReturnType<typeof useDevices>;
  onSettings: (change: Partial<Schemas["CallSettings"]>) => void;
  onTry: () => void;
}

/** Before the start: when to stop, whether everybody is warm, who is there, and what is called. */
export function StartSheet({ plan, settings, voiced, failed, crew, gate, devices, onSettings, onTry }: Props) {
  const there = new Set<Kind>(plan.calls.map((call) => call.kind));
  const combinations = plan.timeline.some((piece) => piece.calls.length > 0);
  const mute = (kind: Kind, on: boolean) =>
    onSettings({ muted: on ? settings.muted.filter((each) => each !== kind) : [...settings.muted, kind] });
  const silent = plan.calls.length > 0 ? plan.silent : null;
  return (
    <section
      aria-label="Before the start"
      // After a touch the space bar is the start key again, and not that of the box.
      onPointerUp={() => setTimeout(() => (document.activeElement as HTMLElement | null)?.blur())}
      className="max-h-full overflow-y-auto px-5 pt-3 pb-2 font-[family-name:var(--font-body)] text-[16px] leading-[22px] min-[900px]:pr-12 min-[900px]:text-[18px] min-[900px]:leading-[25px]"
    >
      <h2 className="text-[24px] leading-[30px]">Stop at once, and get help, for</h2>
      <p>
        {shared.stop_signs}. Press <b>U</b> or <b>Unwell</b>. When in doubt, stop.
      </p>
      <EmergencyNumber sessionId={plan.session_id ?? 0} number={plan.emergency_number} />
      <Gate gate={gate} />
      {plan.cold && (
        <p className="pt-2">
          <span className="seal">Cold</span> {plan.cold}
        </p>
      )}
      {plan.bring?.length > 0 && (
        <p className="pt-2">
          <b>To bring</b> {plan.bring.join(", ")}
        </p>
      )}
      {plan.board ? (
        <p className="pt-2">
          <b>The class</b> {plan.board.people.filter((each) => each.row.some((at) => at !== "away")).length} people,{" "}
          {plan.board.waves.length} waves. <b>C</b> or <b>Class</b>: who is where, and somebody late.
        </p>
      ) : (
        <CrewEditor
          crew={crew.crew}
          measured={devices.measured}
          pairs={inPairs(plan)}
          timeline={plan.timeline}
          failed={devices.failed}
          onChange={crew.change}
          onAdd={crew.add}
          onLess={crew.less}
          onFind={(place) => void devices.find(place)}
        />
      )}
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 pt-3">
        <b className="basis-full">Sounded</b>
        {SOUNDS.map(([kind, word]) => (
          <Tick key={kind} label={word} on={!settings.muted.includes(kind)} onChange={(on) => mute(kind, on)} />
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 pt-3">
        <b className="basis-full">Called out{voiced || silent ? "" : " (fetching the voice …)"}</b>
        {silent && <span>{silent} Bells and clacks sound; the words stand on the screen.</span>}
        {WORDS.filter(([kind]) => there.has(kind)).map(([kind, word]) => (
          <Tick key={kind} label={word} on={!settings.muted.includes(kind)} onChange={(on) => mute(kind, on)} />
        ))}
      </div>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-2">
        {combinations && (
          <Choice
            label="Combination again"
            value={String(settings.combination_every_s ?? "")}
            none="only before"
            options={EVERY}
            onChange={(every) => onSettings({ combination_every_s: every ? Number(every) : null })}
          />
        )}
        <button type="button" className="act" onClick={onTry}>
          Try the loudness
        </button>
      </div>
      <p className="pt-2 text-[15px] opacity-80">
        Another screen of the club, such as the hall's, follows by itself at <b>/screen</b> of this address.
      </p>
      {failed && <p role="alert">{failed}</p>}
    </section>
  );
}
