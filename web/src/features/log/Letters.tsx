import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { coaches, letters } from "../../api/queries";
import { markLogged, recallRunById } from "../../domain/clock/keptRun";
import { again, send, throwAway } from "../../domain/outbox/outbox";
import { release } from "../../domain/outbox/release";
import type { Waiting } from "../../domain/outbox/store";
import { useOfOthers, useOutbox } from "../../domain/outbox/useOutbox";
import { when } from "../../domain/time";
import { Choice } from "../../ui/Choice";
import { saveFile } from "../../ui/saveFile";

/** Everything of this coach that is not at its place yet: what waits, what came back, what others have sent. */
export function Letters() {
  const items = useOutbox();
  const others = useOfOthers();
  const received = useQuery(letters);
  return (
    <>
      {items.map((item) =>
        item.refusal ? <Returned key={item.key} item={item} /> : <Unsent key={item.key} item={item} />,
      )}
      {(received.data ?? []).map((letter) => (
        <Received key={letter.id} letter={letter} />
      ))}
      {others > 0 && (
        <p role="status" className="quiet border-b border-[var(--rule)] py-3 text-[13px]">
          {others === 1 ? "Something" : `${others} things`} of another coach {others === 1 ? "waits" : "wait"} on this
          device, and {others === 1 ? "is" : "are"} sent as soon as they sign in here.
        </p>
      )}
    </>
  );
}

interface RowProps {
  seal: string;
  title: string;
  text: ReactNode;
  children?: ReactNode;
}

function Row({ seal, title, text, children }: RowProps) {
  return (
    <div role="status" className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-[var(--rule)] py-3">
      <span className="seal">{seal}</span>
      <b>{title}</b>
      <span className="quiet">{text}</span>
      {children && <span className="flex flex-wrap items-end gap-2">{children}</span>}
    </div>
  );
}

/** It is kept here, and goes as soon as it can. */
function Unsent({ item }: { item: Waiting }) {
  if (item.tries === 0) {
    return <Row seal="Off line" title={item.title} text="is kept on this device and is sent when there is a network" />;
  }
  const at = new Date(item.notBefore).toLocaleTimeString([], { timeStyle: "short" });
  return (
    <Row
      seal="Waits"
      title={item.title}
      text={`The server failed with it ${item.tries === 1 ? "once" : `${item.tries} times`}. It is kept on this device and tried again at ${at}.`}
    >
      <button type="button" className="act" onClick={() => void again(item)}>
        Try now
      </button>
      <AsFile name={item.title} value={item} />
    </Row>
  );
}

type Told = { person_id?: number | null; run?: Schemas["RunIn"] };

/** The same without the session and the person it names: its plan stands in it. */
function alone(body: unknown): unknown {
  const told = body as Told;
  const bare = told.run && { ...told.run, session_id: null, person_id: null };
  return { ...told, ...(told.run ? { run: bare } : {}), ...("person_id" in told ? { person_id: null } : {}) };
}

const names = (body: unknown): boolean => {
  const { person_id, run } = body as Told;
  return person_id != null || run?.session_id != null || run?.person_id != null;
};

/** A letter that came back: why, and every way on. Nothing of it is gone until somebody says so. */
function Returned({ item }: { item: Waiting }) {
  const navigate = useNavigate();
  const [asked, setAsked] = useState(false);
  const kept = item.entry ? recallRunById(item.runId) : null;
  const reopen = () => {
    markLogged(item.runId, false);
    navigate(`/log/run?run=${item.runId}`);
  };
  const gone = async () => {
    await throwAway(item.key);
    if (item.entry) await release(item.runId);
  };
  return (
    <Row seal="Came back" title={item.title} text={item.refusal?.message}>
      {kept && (
        <button type="button" className="act main" onClick={reopen}>
          Open it again
        </button>
      )}
      <button type="button" className="act" onClick={() => void again(item)}>
        Send it again
      </button>
      {names(item.body) && (
        <button type="button" className="act" onClick={() => void again(item, alone(item.body))}>
          Save without session and person
        </button>
      )}
      <ToCoach item={item} onSent={gone} />
      <AsFile name={item.title} value={item} />
      {asked ? (
        <span role="alertdialog" aria-label="Throw it away?" className="flex items-center gap-2">
          Gone for good?
          <button type="button" className="act" onClick={() => void gone()}>
            Throw it away
          </button>
          <button type="button" className="act main" onClick={() => setAsked(false)}>
            Keep it
          </button>
        </span>
      ) : (
        <button type="button" className="act" onClick={() => setAsked(true)}>
          Throw away
        </button>
      )}
    </Row>
  );
}

function ToCoach({ item, onSent }: { item: Waiting; onSent: () => Promise<void> }) {
  const { data = [] } = useQuery(coaches);
  const sending = useMutation({
    mutationFn: (to: number) =>
      need(
        api.POST("/api/letters", {
          body: {
            to,
            title: item.title.slice(0, 160),
            path: item.path,
            body: item.body as Record<string, never>,
            reason: (item.refusal?.message ?? "").slice(0, 1000),
          },
        }),
      ),
    onSuccess: onSent,
  });
  if (data.length === 0) return null;
  return (
    <>
      <Choice
        label="Send it to"
        none={sending.isPending ? "sending …" : "a coach"}
        value=""
        options={data.map(({ id, name }) => ({ id: String(id), name }))}
        onChange={(id) => id && sending.mutate(Number(id))}
      />
      {sending.error && <span role="alert">{sending.error.message}</span>}
    </>
  );
}

/** What another coach could not send: this one sees to it. */
function Received({ letter }: { letter: Schemas["LetterOut"] }) {
  const client = useQueryClient();
  const take = useMutation({
    mutationFn: async () => {
      const [, , , runId = "", what] = letter.path.split("/");
      const { title, path, body } = letter;
      await send({ key: `${what} ${runId} letter ${letter.id}`, title, path, body, runId, entry: what === "log" });
      await need(api.DELETE("/api/letters/{letter_id}", { params: { path: { letter_id: letter.id } } }));
    },
    onSettled: () => askAnew(client, { queryKey: letters.queryKey }),
  });
  return (
    <Row
      seal="Letter"
      title={letter.title}
      text={`from ${letter.sender}, ${when(letter.sent_at)}. It was refused: ${letter.reason}`}
    >
      <button type="button" className="act main" disabled={take.isPending} onClick={() => take.mutate()}>
        See to it
      </button>
      <AsFile name={letter.title} value={letter} />
      {take.error && <span role="alert">{take.error.message}</span>}
    </Row>
  );
}

function AsFile({ name, value }: { name: string; value: object }) {
  const save = () => saveFile(`${name}.json`, "application/json", JSON.stringify(value, null, 2));
  return (
    <button type="button" className="act" onClick={save}>
      Save as a file
    </button>
  );
}
