import { useEffect, useRef, useState } from "react";
import type { Member } from "../../domain/clock/crew";
import { send } from "../../domain/outbox/outbox";
import { useOutbox } from "../../domain/outbox/useOutbox";
import { today } from "../../domain/time";
import { keepKeys } from "../../ui/keymap";

interface Props {
  number: string;
  crew: Member[];
  runId: string;
  onGoOn: () => void;
  onEnd: () => void;
}

/** Somebody is unwell: the clock stands, and what to do first stands here, large. */
export function Unwell({ number, crew, runId, onGoOn, onEnd }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return (
    <dialog
      ref={dialog}
      aria-label="Somebody is unwell"
      className="m-0 h-dvh max-h-none w-dvw max-w-none overflow-y-auto bg-[#FBF8F1] p-6 font-[family-name:var(--font-clock)] text-[#10141F] min-[900px]:p-12"
      onCancel={(event) => event.preventDefault()}
      onKeyDown={keepKeys}
    >
      <h1 className="text-[44px] leading-[48px] font-bold min-[900px]:text-[72px] min-[900px]:leading-[76px]">
        Everybody stops
      </h1>
      <ol className="grid list-decimal gap-2 pt-4 pl-8 text-[26px] leading-[32px] font-semibold min-[900px]:gap-3 min-[900px]:text-[38px] min-[900px]:leading-[46px]">
        <li>One stays with them. Gloves, mouthguard and headgear off; nothing to drink.</li>
        <li>
          Not answering, not breathing as usual, chest pain, a fit, or a hard blow to the head: call{" "}
          <b className="text-[1.300em] whitespace-nowrap">{number}</b> now.
        </li>
        <li>Not breathing as usual: press hard and fast on the chest; send somebody for the defibrillator.</li>
        <li>A blow to the head: no more today, never alone, and a physician before any training.</li>
      </ol>
      <Knocked crew={crew} runId={runId} />
      <p className="pt-4 text-[18px] leading-[24px] min-[900px]:text-[24px] min-[900px]:leading-[30px]">
        General first steps, not medical advice: follow your first-aid training and your hall's own rules. It is
        recorded in this run.
      </p>
      <p className="flex flex-wrap gap-3 pt-6">
        <button
          type="button"
          className="h-[78px] cursor-pointer rounded-[4px] border-[3px] border-current bg-[#10141F] px-8 text-[30px] font-semibold text-[#FBF8F1]"
          onClick={onEnd}
        >
          End the session
        </button>
        <button
          type="button"
          className="h-[78px] cursor-pointer rounded-[4px] border-[3px] border-current px-8 text-[30px] font-semibold"
          onClick={onGoOn}
        >
          All well, back to the clock
        </button>
      </p>
    </dialog>
  );
}

/** A knock to the head is noted with one press, also without a network: then nothing but rest for them. */
function Knocked({ crew, runId }: { crew: Member[]; runId: string }) {
  const [noted, setNoted] = useState<readonly number[]>([]);
  const [on] = useState(today);
  const outbox = useOutbox();
  const knockOf = (personId: number) => `knock ${personId} ${on}`;
  const known = crew.flatMap(({ personId, name }) => (personId === null ? [] : [{ personId, name }]));
  if (known.length === 0) return null;
  async function note(personId: number, name: string) {
    const on = today();
    await send({
      key: knockOf(personId),
      path: `/api/people/${personId}/knocks/on/${on}`,
      body: {},
      title: `Knock to the head, ${name}`,
      runId,
      entry: false,
    });
    setNoted((before) => [...before, personId]);
  }
  function become(personId: number): string {
    const kept = outbox.find(({ key }) => key === knockOf(personId));
    if (!kept) return "noted: nothing but rest until a physician clears it";
    return kept.refusal ? "not noted, see the log" : "noted on this device, sent with the network";
  }
  return (
    <p className="flex flex-wrap items-center gap-3 pt-4 text-[20px]">
      {known.map(({ personId, name }) =>
        noted.includes(personId) ? (
          <b key={personId} role="status">
            {name}: {become(personId)}.
          </b>
        ) : (
          <button
            key={personId}
            type="button"
            className="min-h-[64px] cursor-pointer rounded-[4px] border-[3px] border-current px-5 font-semibold"
            onClick={() => void note(personId, name)}
          >
            Knock to the head: {name}
          </button>
        ),
      )}
    </p>
  );
}
