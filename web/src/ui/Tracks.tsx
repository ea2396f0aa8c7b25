import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { askAnew } from "../api/askAnew";
import { api, need, type Schemas, withFile } from "../api/client";
import { music as musicQuery, tracks as tracksQuery } from "../api/queries";
import { once } from "../domain/once";
import { clock } from "../domain/time";
import { Choice } from "./Choice";
import { FileButton } from "./FileButton";
import { Tick } from "./Tick";

type Track = Schemas["TrackOut"];

const MOST_MB = 150;

const FORMS = [
  { id: "opus", name: "Opus, small" },
  { id: "mp3", name: "MP3" },
  { id: "flac", name: "FLAC" },
  { id: "wav", name: "WAV" },
];

/** The session as a sound file for the hall's speakers: asked for, watched while it is made, fetched. */
export function Tracks({ sessionId }: { sessionId: number }) {
  const client = useQueryClient();
  const query = useQuery(tracksQuery(sessionId));
  const [form, setForm] = useState("opus");
  const [pulse, setPulse] = useState(false);
  const [music, setMusic] = useState("");
  const [tooLarge, setTooLarge] = useState<string | null>(null);
  const kept = useQuery(musicQuery).data ?? [];
  const bring = useMutation({
    mutationFn: (file: File) =>
      need(
        api.POST("/api/music", {
          ...withFile(file),
        }),
      ),
    onSuccess: async (brought) => {
      await askAnew(client, { queryKey: musicQuery.queryKey });
      setMusic(String(brought.id));
    },
  });
  const refresh = () => askAnew(client, { queryKey: tracksQuery(sessionId).queryKey });
  const make = useMutation({
    mutationFn: () => {
      const body = {
        session_id: sessionId,
        form: form as Schemas["TrackIn"]["form"],
        pulse,
        music_id: music ? Number(music) : null,
      };
      return once(["track", body], (headers) => need(api.POST("/api/tracks", { body, headers })));
    },
    onSuccess: refresh,
  });
  return (
    <section aria-label="Cue track" className="rule-t mt-4 pt-3">
      <h3>Cue track</h3>
      <p className="quiet pb-2 text-[13px]">
        Bells, clappers, count and calls as one sound file, at the floor's own moments; ten seconds of count-in come
        first. Music of your own lies underneath and goes down for every call.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Choice label="Format" value={form} options={FORMS} onChange={setForm} />
        <Tick label="With the pulse" on={pulse} onChange={setPulse} />
        {kept.length > 0 && (
          <Choice
            label="Music underneath"
            value={music}
            none="none"
            options={kept.map(({ id, name, seconds }) => ({
              id: String(id),
              name: `${name}, ${clock(Math.round(seconds))}`,
            }))}
            onChange={setMusic}
          />
        )}
        <FileButton
          label="Music file"
          accept="audio/*"
          word={bring.isPending ? "Bringing …" : "Own music …"}
          disabled={bring.isPending}
          onFile={(file) => {
            // What would be refused is not sent: it may be very large.
            setTooLarge(file.size > MOST_MB * 1_000_000 ? file.name : null);
            if (file.size <= MOST_MB * 1_000_000) bring.mutate(file);
          }}
        />
        <button type="button" className="act main" disabled={make.isPending} onClick={() => make.mutate()}>
          {make.isPending ? "Asking …" : "Make the track"}
        </button>
      </div>
      {tooLarge && (
        <p role="alert">
          {tooLarge} is larger than {MOST_MB} MB. Save it as MP3, or cut it.
        </p>
      )}
      {(make.error ?? bring.error) && <p role="alert">{(make.error ?? bring.error)?.message}</p>}
      {query.error && <p role="alert">{query.error.message}</p>}
      <ul>
        {query.data?.map((track) => (
          <Row key={track.id} track={track} onChange={refresh} />
        ))}
      </ul>
    </section>
  );
}

/** A track as it is now: where it is being made its progress comes by itself. */
function useTrack(track: Track, onOver: () => void): Track {
  const [told, setTold] = useState<Track | null>(null);
  const moving = track.state === "waiting" || track.state === "making";
  // biome-ignore lint/correctness/useExhaustiveDependencies: one line to the server for as long as it is made
  useEffect(() => {
    if (!moving) return;
    const events = new EventSource(`/api/tracks/${track.id}/events`);
    events.onmessage = ({ data }) => {
      const now = JSON.parse(data) as Track;
      setTold(now);
      if (now.state === "waiting" || now.state === "making") return;
      events.close();
      onOver();
    };
    return () => events.close();
  }, [track.id, moving]);
  return moving && told ? told : track;
}

function Row({ track: known, onChange }: { track: Track; onChange: () => void }) {
  const track = useTrack(known, onChange);
  const cancel = useMutation({
    mutationFn: () => need(api.DELETE("/api/tracks/{track_id}", { params: { path: { track_id: track.id } } })),
    onSuccess: onChange,
  });
  const name = `${FORMS.find(({ id }) => id === track.form)?.name ?? track.form}${track.pulse ? ", with the pulse" : ""}${
    track.music ? `, over ${track.music}` : ""
  }`;
  const moving = track.state === "waiting" || track.state === "making";
  return (
    <li className="rule-t mt-2 flex flex-wrap items-center justify-between gap-3 pt-2">
      <span className="min-w-0 flex-1">
        <b>{name}</b>
        {track.stale && <span className="quiet"> · of the session as it was before</span>}
        {track.state === "failed" && (
          <span role="alert" className="block text-[13px]">
            {track.said}
          </span>
        )}
        {moving && (
          <progress
            className="mt-1 block h-[10px] w-full appearance-none border border-[var(--ink)] [&::-moz-progress-bar]:bg-[var(--ink)] [&::-webkit-progress-bar]:bg-[var(--sheet)] [&::-webkit-progress-value]:bg-[var(--ink)]"
            aria-label={`${name}, being made`}
            value={track.state === "waiting" ? undefined : track.progress}
            max={1}
          />
        )}
      </span>
      <span className="flex gap-2">
        {track.state === "done" && (
          <a className="act" href={`/api/tracks/${track.id}/file`} download>
            Save
          </a>
        )}
        <button type="button" className="act" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
          {moving ? "Cancel" : "Take off the list"}
        </button>
      </span>
    </li>
  );
}
