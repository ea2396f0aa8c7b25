import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { HTMLAttributes, Ref } from "react";

/** What a row that can be dragged needs: its place, and what its handle listens to. */
export function useGrip(id: string) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  return {
    row: setNodeRef as Ref<never>,
    style: { transform: CSS.Translate.toString(transform), transition, opacity: isDragging ? 0.5 : 1 },
    handle: { ...attributes, ...listeners, ref: setActivatorNodeRef as Ref<HTMLButtonElement> },
  };
}

interface Props extends HTMLAttributes<HTMLButtonElement> {
  label: string;
  ref?: Ref<HTMLButtonElement>;
}

/** The handle of a row: drag it, or lift it with space and move it with the arrows. */
export function Grip({ label, className = "", ref, ...handle }: Props) {
  return (
    <button
      {...handle}
      ref={ref}
      type="button"
      aria-label={label}
      tabIndex={-1}
      className={`no-print flex h-[34px] w-[24px] flex-none cursor-grab touch-none items-center justify-center max-[899px]:h-[44px] ${className}`}
    >
      <svg aria-hidden="true" width="8" height="14" fill="var(--ink-2)">
        {[2, 7, 12].flatMap((y) => [2, 6].map((x) => <circle key={`${x} ${y}`} cx={x} cy={y} r={1.2} />))}
      </svg>
    </button>
  );
}
