import { useRef } from "react";

interface Props {
  /** What the file is, for whoever does not see the button. */
  label: string;
  accept: string;
  word: string;
  disabled: boolean;
  onFile: (file: File) => void;
  className?: string;
}

/** A button that asks the device for a file; the same file can be chosen again once it was mended. */
export function FileButton({ label, accept, word, disabled, onFile, className = "act" }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className={className} disabled={disabled} onClick={() => input.current?.click()}>
        {word}
      </button>
      <input
        ref={input}
        type="file"
        aria-label={label}
        accept={accept}
        className="hidden"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
    </>
  );
}
