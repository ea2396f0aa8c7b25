import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useEffect, useId, useLayoutEffect, useRef, useState } from "react";
import { read } from "../../api/queries";
import { Coloured } from "../../ui/Coloured";
import { Completing, useCompleting } from "../../ui/Completing";
import { Fault } from "../../ui/Fault";
import { actionOf, LINE } from "../../ui/keymap";
import { useSettled } from "../../ui/useSettled";
import type { Typing } from "./useTyped";

interface Props {
  text: string;
  typed: string | null;
  typing: Typing;
  onTyped: (text: string | null) => void;
  onLay: () => void;
  /** The pattern is finished. */
  onDone: () => void;
}

/**
 * The pattern as text: coloured, completed, and said in plain words. What cannot be read is marked at its character.
 * Enter finishes it, once it reads; Shift Enter makes another line.
 */
export function Pattern({ text, typed, typing, onTyped, onLay, onDone }: Props) {
  const id = useId();
  const shown = typed ?? text;
  const input = useRef<HTMLTextAreaElement>(null);
  // The canonical text comes from the server. Where it arrives under a caret, it stands selected, so that what is
  // typed just then takes its place and is not hung on to its end.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only where the text itself changes
  useLayoutEffect(() => {
    if (typed === null && document.activeElement === input.current) input.current?.select();
  }, [text]);
  // What is said may shrink as the line is left, but the place stays, so that no key moves away under the finger.
  const place = useRef<HTMLDivElement>(null);
  const [tallest, setTallest] = useState(22);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      const [box] = entry?.borderBoxSize ?? [];
      if (box) setTallest((before) => Math.max(before, box.blockSize));
    });
    if (place.current) watch.observe(place.current);
    return () => watch.disconnect();
  }, []);
  const completing = useCompleting(id, input, shown, typed !== null, onTyped);
  const { refused, several, readAs } = typing;
  const pasted = useRef(false);
  useEffect(() => {
    if (several && pasted.current) onLay();
    if (several || refused) pasted.current = false;
  }, [several, refused, onLay]);
  const [finishing, setFinishing] = useState(false);
  const read = typed === null || (readAs !== null && !typing.waiting);
  useEffect(() => {
    if (!finishing || !(refused || several || read)) return;
    setFinishing(false);
    if (several) onLay();
    else if (!refused) onDone();
  }, [finishing, refused, several, read, onLay, onDone]);
  const onKeyDown = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    completing.combobox.onKeyDown(event);
    if (event.defaultPrevented || event.nativeEvent.isComposing || actionOf(LINE, event) !== "finish") return;
    event.preventDefault();
    completing.close();
    if (!typing.blank) setFinishing(true);
  };
  return (
    <div className="relative">
      <Coloured text={shown}>
        <textarea
          ref={input}
          id={id}
          aria-label="Pattern"
          data-pattern
          className="field coloured text-[15px]"
          rows={1}
          spellCheck={false}
          autoComplete="off"
          autoCapitalize="off"
          value={shown}
          aria-invalid={refused !== null}
          aria-describedby={`${id}-said`}
          {...completing.combobox}
          onKeyDown={onKeyDown}
          onChange={(event) => {
            setFinishing(false);
            onTyped(event.target.value);
          }}
          onPaste={(event) => {
            pasted.current = event.clipboardData.getData("text/plain").includes("\n");
          }}
          onBlur={() => {
            completing.close();
            if (several) onLay();
            else if (readAs !== null) onTyped(null);
          }}
        />
      </Coloured>
      <Completing {...completing} />
      <div ref={place} id={`${id}-said`} role="status" className="pt-1 text-[13px]" style={{ minHeight: tallest }}>
        <Said shown={shown} typed={typed} typing={typing} onTyped={onTyped} onLay={onLay} />
      </div>
    </div>
  );
}

interface SaidProps {
  shown: string;
  typed: string | null;
  typing: Typing;
  onTyped: (text: string | null) => void;
  onLay: () => void;
}

/** What is said of the line: its fault and the cure, or what it means. */
function Said({ shown, typed, typing, onTyped, onLay }: SaidProps) {
  const { refused, away, readAs, several, waiting } = typing;
  if (refused) {
    return (
      <>
        <Fault refused={refused} text={shown} onText={onTyped} />{" "}
        {typing.series && (
          <button
            type="button"
            className="act"
            disabled={typing.series.making}
            // Before the line is left, which would settle it.
            onMouseDown={(event) => event.preventDefault()}
            onClick={typing.series.make}
          >
            {typing.series.making ? "Making it …" : `Make the series of ${typing.series.weeks}`}
          </button>
        )}{" "}
        {typing.series?.failed}
        <button type="button" className="link min-h-[24px]" onClick={() => onTyped(null)}>
          Leave it as it was
        </button>
      </>
    );
  }
  if (typing.blank)
    return <span className="quiet">How often, how long, how hard: Ctrl Space shows what can stand here.</span>;
  if (away) return <span className="quiet">No connection: it is read as soon as there is one.</span>;
  if (several) {
    return (
      <>
        {several.length} parts: {several.map((part) => part.name).join(", ")}.{" "}
        <button type="button" className="link min-h-[24px]" onMouseDown={(e) => e.preventDefault()} onClick={onLay}>
          Put them in rows
        </button>
      </>
    );
  }
  return (
    <>
      {typed !== null && readAs !== null && readAs !== typed && <span>Read as {readAs}. </span>}
      <Meaning text={typed === null || !waiting ? shown : ""} waiting={waiting} />
    </>
  );
}

function Meaning({ text, waiting }: { text: string; waiting: boolean }) {
  const asked = useSettled(text);
  const { data } = useQuery({ ...read(asked), enabled: asked !== "" });
  const [last, setLast] = useState("");
  const now = data?.meaning.join(" ") ?? "";
  if (now && now !== last) setLast(now);
  return <span className="quiet">{now || last || (waiting ? "Reading …" : "")}</span>;
}
