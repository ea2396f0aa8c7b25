import { Sheet } from "../../ui/Sheet";

interface Props {
  /** What lies on the bench, unsaved. */
  title: string;
  /** What is about to take its place. */
  brought: string;
  busy: boolean;
  said: string | null;
  onSave: () => void;
  onReplace: () => void;
  onStay: () => void;
}

/** Before something takes the place of what lies on the bench and was never saved. */
export function Ask({ title, brought, busy, said, onSave, onReplace, onStay }: Props) {
  return (
    <Sheet label="Not saved yet" className="w-[min(520px,calc(100vw-32px))]" onClose={onStay}>
      <h2>{title} is not saved yet</h2>
      <p className="pt-2">It lies on the bench, and {brought} would take its place.</p>
      {said && (
        <p role="alert" className="pt-2">
          {said}
        </p>
      )}
      <p className="flex flex-wrap gap-2 pt-4">
        <button type="button" className="act main" disabled={busy} onClick={onSave}>
          {busy ? "Saving …" : "Save it first"}
        </button>
        <button type="button" className="act" disabled={busy} onClick={onReplace}>
          Replace it
        </button>
        <button type="button" className="act" disabled={busy} onClick={onStay}>
          Go on with it
        </button>
      </p>
    </Sheet>
  );
}
