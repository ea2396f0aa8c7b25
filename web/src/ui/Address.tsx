import { useRef, useState } from "react";
import { Sure } from "./Sure";

interface Props {
  label: string;
  address: string;
  takingBack: { isPending: boolean; error: Error | null; mutate: () => void };
}

/** An address that was made: copied, or taken back, which is asked about, since nobody can open it again. */
export function Address({ label, address, takingBack }: Props) {
  const [copied, setCopied] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const copy = async () => {
    field.current?.select();
    try {
      await navigator.clipboard.writeText(address);
      setCopied(true);
    } catch {
      // Not every page may write there: what is selected can be copied by hand.
      setCopied(false);
    }
  };
  return (
    <>
      <input
        ref={field}
        readOnly
        aria-label={label}
        className="field my-2 w-full"
        value={address}
        onFocus={(event) => event.target.select()}
      />
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="act" onClick={copy}>
          {copied ? "Copied" : "Copy"}
        </button>
        <Sure
          word="Take back"
          yes="Yes, take it back"
          doing="Taking back …"
          busy={takingBack.isPending}
          onSure={() => takingBack.mutate()}
        />
      </div>
      {takingBack.error && <p role="alert">{takingBack.error.message}</p>}
    </>
  );
}
