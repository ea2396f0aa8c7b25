import { type ReactNode, useRef, useState } from "react";
import { FLOOR, type FloorAction, keyOf } from "../../ui/keymap";
import { HOLD_MS } from "./useFloorKeys";

export const PULSE: Record<string, string> = { 0: "no pulse", 1: "pulse", 2: "double time", 0.5: "half time" };

/** The pulse for the eye: four strokes, one inked at a time; to music eight, counted. It steps, nothing slides. */
export function Pulse({ beat, eights = false }: { beat: number | null; eights?: boolean }) {
  if (beat === null) return null;
  return (
    <span aria-hidden="true" data-testid="pulse" className="flex gap-2 px-5 pt-2 wide:px-12">
      {(eights ? EIGHT : FOUR).map((stroke, _, all) => (
        <span
          key={stroke}
          className="h-[10px] flex-1 border-2 border-current"
          style={{ background: beat % all.length === stroke ? "currentColor" : "transparent" }}
        />
      ))}
      {eights && <b className="w-[2ch] text-right text-[5vh] leading-[10px]">{(beat % EIGHT.length) + 1}</b>}
    </span>
  );
}

const FOUR = [0, 1, 2, 3];
const EIGHT = [0, 1, 2, 3, 4, 5, 6, 7];

interface BigProps {
  children: string;
  main?: boolean;
  small?: boolean;
  onClick: () => void;
}
const GLOVE =
  "cursor-pointer rounded-[4px] border-[3px] border-current px-1 font-semibold leading-none touch-manipulation";

/** A key for a gloved hand. */
export function Big({ children, main = false, small = false, onClick }: BigProps) {
  return (
    <button
      type="button"
      onClick={onClick}
      className={`${GLOVE} ${small ? "h-[60px] text-[24px]" : "h-[78px] text-[34px] low:h-[60px] low:text-[24px]"} ${main ? "flex-[1.7]" : "flex-1"}`}
    >
      {children}
    </button>
  );
}

export function Key({ of, children }: { of: FloorAction; children: string }) {
  return (
    <span className="whitespace-nowrap">
      <kbd className="font-[family-name:var(--font-clock)] mr-2 rounded-[2px] border border-current px-2 font-semibold">
        {keyOf(FLOOR, of)}
      </kbd>
      {children}
    </span>
  );
}

export function Small({ children, onClick }: { children: ReactNode; onClick: () => void }) {
  return (
    <button type="button" className="min-h-[44px] underline" onClick={onClick}>
      {children}
    </button>
  );
}

export function HoldToEnd({ onEnd }: { onEnd: () => void }) {
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const [holding, setHolding] = useState(false);
  const stop = () => {
    clearTimeout(timer.current);
    setHolding(false);
  };
  return (
    <button
      type="button"
      className={`${GLOVE} h-[60px] flex-1 text-[20px]`}
      onPointerDown={() => {
        setHolding(true);
        timer.current = setTimeout(onEnd, HOLD_MS);
      }}
      onPointerUp={stop}
      onPointerLeave={stop}
    >
      {holding ? "Keep holding" : "Hold to end"}
    </button>
  );
}
