import { useMutation, useQueryClient } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { type PointerEvent, useRef, useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas, withFile } from "../../api/client";
import { clock } from "../../domain/time";
import { FileButton } from "../../ui/FileButton";
import { Stepper } from "../../ui/Stepper";
import { useWidth } from "../../ui/useWidth";

type Looked = Schemas["HeartLooked"];
const HEIGHT = 150;
const LONGEST_S = 86_400;

/** A file of heart rate, laid over the run: looked at, moved where it is wrong, and kept. */
export function HeartFile({ entryId }: { entryId: number }) {
  const client = useQueryClient();
  const [shift, setShift] = useState<number | null>(null);
  const path = { entry_id: entryId };
  const look = useMutation({
    mutationFn: (file: File) =>
      need(
        api.POST("/api/log/{entry_id}/heart/look", {
          params: { path },
          ...withFile(file),
        }),
      ),
    onSuccess: ({ shift_s }) => setShift(Math.round(shift_s)),
  });
  const keep = useMutation({
    mutationFn: ({ heart, shift_s }: { heart: Looked["heart"]; shift_s: number }) =>
      need(api.PUT("/api/log/{entry_id}/heart", { params: { path }, body: { heart, shift_s } })),
    onSuccess: async () => {
      look.reset();
      await askAnew(client, { queryKey: ["log"] });
    },
  });
  const looked = look.data as Looked | undefined;
  const error = look.error ?? keep.error;
  return (
    <section aria-label="Heart rate from a file" className="rule-t mt-4 pt-3">
      <div className="flex flex-wrap items-center gap-3">
        <FileButton
          label="A file of heart rate"
          accept=".fit,.tcx,.csv,.txt"
          word={look.isPending ? "Reading …" : "Heart rate from a file"}
          disabled={look.isPending || keep.isPending}
          onFile={(file) => look.mutate(file)}
        />
        <span className="quiet text-[13px]">
          FIT, TCX, or CSV with a column for the time and one for the heart rate.
        </span>
      </div>
      {error && (
        <p role="alert" className="pt-2">
          <span className="seal">Not kept</span> {error.message}
        </p>
      )}
      {keep.data && !looked && (
        <p role="status" className="pt-2">
          {keep.data.detail}
        </p>
      )}
      {looked && shift !== null && (
        <>
          <p role="status" className="pt-2 text-[13px]">
            {looked.kind}, {looked.heart.length} readings
            {looked.pauses.length > 0 && `, ${looked.pauses.length} of its own pauses`}
            {looked.laps.length > 0 && `, ${looked.laps.length} laps`}. {laidBy(looked)} Drag it, or type where it
            begins.
          </p>
          <Overlay looked={looked} shift={shift} onShift={setShift} />
          <div className="flex flex-wrap items-end gap-4 pt-2">
            <Stepper
              label="Begins at, seconds of the session"
              value={shift}
              min={-LONGEST_S}
              max={LONGEST_S}
              show={String}
              read={(text) => (/^-?\d{1,5}$/.test(text.trim()) ? Number(text) : null)}
              step={() => 1}
              onChange={setShift}
            />
            <button
              type="button"
              className="act main"
              disabled={keep.isPending}
              onClick={() => keep.mutate({ heart: looked.heart, shift_s: shift })}
            >
              {keep.isPending ? "Keeping …" : "Keep it with this entry"}
            </button>
            <button type="button" className="act" onClick={() => look.reset()}>
              Leave it
            </button>
          </div>
        </>
      )}
    </section>
  );
}

function laidBy({ by, sureness, shift_s }: Looked): string {
  const at = `${shift_s < 0 ? "−" : ""}${clock(Math.abs(Math.round(shift_s)))}`;
  if (by === "clock") return `Laid by its clock, from ${at}.`;
  return `It has no clock of this day: laid where it fits what was expected best, from ${at} (${sureness}).`;
}

interface OverlayProps {
  looked: Looked;
  shift: number;
  onShift: (shift: number) => void;
}

/** What was expected in grey, what the file tells in ink, which is dragged along the run. */
function Overlay({ looked, shift, onShift }: OverlayProps) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const held = useRef<{ x: number; shift: number } | null>(null);
  const total = looked.expected.at(-1)?.[0] ?? 1;
  const beats = [...looked.expected, ...looked.heart].map(([, bpm]) => bpm ?? 0);
  const x = scaleLinear()
    .domain([0, total])
    .range([0, Math.max(1, width)]);
  const y = scaleLinear()
    .domain([Math.min(...beats) - 5, Math.max(...beats) + 5])
    .range([HEIGHT, 0]);
  const move = (event: PointerEvent) => {
    if (!held.current) return;
    onShift(Math.round(held.current.shift + x.invert(event.clientX) - x.invert(held.current.x)));
  };
  const line = (points: Looked["heart"], by: number) =>
    points.map(([at, bpm]) => `${x((at ?? 0) + by).toFixed(1)},${y(bpm ?? 0).toFixed(1)}`).join(" ");
  return (
    <div
      ref={frame}
      className="mt-2 cursor-ew-resize touch-pan-y overflow-hidden border border-[var(--rule)] bg-[var(--sheet)]"
    >
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`What the file tells over what was expected, beginning at second ${shift}`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = { x: event.clientX, shift };
        }}
        onPointerMove={move}
        onPointerUp={() => {
          held.current = null;
        }}
      >
        <polyline points={line(looked.expected, 0)} fill="none" stroke="var(--rule-2)" strokeWidth={4} />
        <polyline points={line(thinned(looked.heart), shift)} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
      </svg>
    </div>
  );
}

const MOST_DRAWN = 2000;

function thinned(heart: Looked["heart"]): Looked["heart"] {
  const every = Math.ceil(heart.length / MOST_DRAWN);
  return heart.filter((_, index) => index % every === 0);
}
