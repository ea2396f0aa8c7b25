import { useMutation } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import { api, need, Refused } from "../../api/client";
import type { Node } from "../../domain/session/tree";
import { Coloured } from "../../ui/Coloured";
import { Completing, useCompleting } from "../../ui/Completing";
import { Fault } from "../../ui/Fault";

interface Props {
  label: string;
  text: string;
  onRead: (node: Node) => void;
}

/** One level as its own line: combination, sides and cues are written here; it is read on Enter, or when it is left. */
export function LevelText({ label, text, onRead }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const input = useRef<HTMLTextAreaElement>(null);
  const completing = useCompleting(id, input, typed ?? text, typed !== null, setTyped);
  const reading = useMutation({
    mutationFn: (line: string) => need(api.POST("/api/read", { body: { text: line } })),
    onSuccess: (answer, line) => {
      const [part] = answer.parts;
      if (part && line !== text) onRead(part.tree);
    },
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the line has become what was typed
  useEffect(() => setTyped(null), [text]);
  const refused = typed !== null && reading.error instanceof Refused ? reading.error : null;
  const settle = () => {
    if (typed === null) return;
    if (typed === text) setTyped(null);
    // What was refused stays as it is until it is changed.
    else if (refused === null || reading.variables !== typed) reading.mutate(typed);
  };
  return (
    <div className="relative min-w-[160px] flex-1">
      <Coloured text={typed ?? text}>
        <textarea
          ref={input}
          id={id}
          aria-label={label}
          aria-invalid={refused !== null}
          aria-describedby={refused ? `${id}-said` : undefined}
          className="field coloured text-[15px]"
          rows={1}
          spellCheck={false}
          autoComplete="off"
          autoCapitalize="off"
          value={typed ?? text}
          {...completing.combobox}
          onChange={(event) => {
            setTyped(event.target.value.replace(/\n/g, " "));
            if (reading.error) reading.reset();
          }}
          onBlur={() => {
            completing.close();
            settle();
          }}
          onKeyDown={(event) => {
            completing.combobox.onKeyDown(event);
            if (event.isDefaultPrevented()) return event.stopPropagation();
            if (event.key === "Enter") settle();
            else if (event.key === "Escape" && typed !== null) {
              setTyped(null);
              reading.reset();
            } else return;
            event.preventDefault();
            event.stopPropagation();
          }}
        />
      </Coloured>
      <Completing {...completing} />
      {refused && (
        <p id={`${id}-said`} role="alert" className="pt-1 text-[13px]">
          <Fault refused={refused} text={typed ?? ""} onText={setTyped} />
        </p>
      )}
      {typed !== null && reading.isPending && <p className="quiet text-[12px]">Reading …</p>}
    </div>
  );
}
