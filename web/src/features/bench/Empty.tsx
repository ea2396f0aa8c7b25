interface EmptyProps {
  examples: string[];
  onType: (text: string) => void;
  onAdd: () => void;
  onPropose: () => void;
}

/** A bare bench, with its ways in. */
export function Empty({ examples, onType, onAdd, onPropose }: EmptyProps) {
  return (
    <div className="mt-6 border border-[var(--rule-2)] p-5">
      <h2>Nothing on the bench yet</h2>
      <p className="quiet">Pick a person and a purpose, then type a pattern or let one be proposed.</p>
      <div className="mt-4 flex flex-wrap gap-2">
        <button type="button" className="act main" onClick={onAdd}>
          <span>
            <u>A</u>dd a part
          </span>
        </button>
        <button type="button" className="act" onClick={onPropose}>
          <span>
            <u>P</u>ropose one
          </span>
        </button>
      </div>
      <p className="label-text mt-5">Or begin from a line</p>
      <ul className="grid gap-1 pt-1">
        {examples.map((example) => (
          <li key={example}>
            <button type="button" className="link min-h-[28px] text-left" onClick={() => onType(example)}>
              {example}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
