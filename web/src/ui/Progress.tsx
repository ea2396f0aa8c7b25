interface Props {
  share: number;
  words: string;
  onStop: () => void;
}

/** How far solving is, in words and as a bar. */
export function Progress({ share, words, onStop }: Props) {
  const percent = Math.round(100 * share);
  return (
    <div className="flex flex-wrap items-center gap-3 py-1" role="status">
      <progress className="h-[10px] w-[180px] accent-[var(--ink)]" max={100} value={percent} aria-label={words} />
      <span className="text-[13px]">
        {words}, {percent} %
      </span>
      <button type="button" className="act" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
