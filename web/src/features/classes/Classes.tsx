import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { classes as classesQuery, classNeeds } from "../../api/queries";
import { useStreamed } from "../../api/useStreamed";
import { once } from "../../domain/once";
import { clock, day } from "../../domain/time";
import { Deleting } from "../../ui/Deleting";
import { faultOf, TextField } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { Progress } from "../../ui/Progress";
import { AskedForm } from "./AskedForm";
import { Proposals } from "./Proposals";
import type { Answer, Asked } from "./plan";

const EXAMPLE = "20/10 for Thursday, 14 people, 6 bags, 25 min with warm-up";

interface Read {
  asked: Asked;
  understood: Schemas["UnderstoodOut"][];
  unread: string[];
}

/** Every class of the club, and the way to a new one: from one line to whole classes of different schools. */
export function Classes() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const query = useQuery(classesQuery);
  const needs = useQuery(classNeeds);
  const [text, setText] = useState("");
  const [read, setRead] = useState<Read | null>(null);
  const [found, setFound] = useState<Answer[]>([]);
  const [end, setEnd] = useState<Schemas["ClassProgress"] | null>(null);
  const [editing, setEditing] = useState(false);
  const proposing = useStreamed<Schemas["ClassProgress"]>("/api/classes/propose", "Reading the class");

  function propose(asked: Asked) {
    setFound([]);
    setEnd(null);
    proposing.run({ asked }, setEnd, (line) => {
      const { proposal } = line;
      if (proposal) setFound((before) => [...before, proposal]);
    });
  }
  const reading = useMutation({
    mutationFn: () => need(api.POST("/api/classes/line", { body: { text } })),
    onSuccess: (told) => {
      setRead(told);
      propose(told.asked);
    },
  });
  const make = useMutation({
    mutationFn: (answer: Answer) => {
      const body = { asked: asAnswered(read?.asked, answer), rows: answer.rows, revision: 0 };
      return once(["class", body], (headers) => need(api.POST("/api/classes", { body, headers })));
    },
    onSuccess: async (made) => {
      for (const queryKey of [["classes"], ["today"]]) await askAnew(client, { queryKey });
      navigate(`/class/${made.id}`);
    },
  });
  if (!query.data || !needs.data) return <Notice asked={query} title="Opening the classes" />;
  return (
    <main className="px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <header className="pb-3">
        <h1>Class</h1>
        <p className="quiet">
          Who is where, when, and whether everybody still gets the work and rest that was designed.
        </p>
      </header>
      <form
        className="ink-t grid gap-2 pt-3 pb-2 min-[900px]:grid-cols-[1fr_auto] min-[900px]:items-start"
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim()) reading.mutate();
        }}
      >
        <TextField
          label="Say what it is"
          placeholder={EXAMPLE}
          value={text}
          maxLength={300}
          autoComplete="off"
          hint="People or a group of the roster, bags, pairs of pads, minutes, work/rest or shorthand, a purpose, a day: in any order."
          fault={faultOf(reading.error, "text") ?? (reading.error ? reading.error.message : null)}
          onChange={(event) => setText(event.target.value)}
        />
        <p className="flex flex-wrap gap-2 min-[900px]:pt-[22px]">
          <button type="submit" className="act main" disabled={!text.trim() || reading.isPending}>
            {reading.isPending ? "Reading …" : "Propose"}
          </button>
          <button
            type="button"
            className="act"
            onClick={() => {
              setRead(read ?? { asked: needs.data.asked, understood: [], unread: [] });
              setEditing(true);
            }}
          >
            Fill in a form
          </button>
        </p>
      </form>
      <div aria-live="polite">
        {read && (read.understood.length > 0 || read.unread.length > 0) && (
          <p className="flex flex-wrap items-center gap-x-3 gap-y-1 pb-2 text-[13px]">
            <span className="quiet">Read as:</span>
            {read.understood.map((each) => (
              <span key={`${each.text} ${each.meaning}`} className="border-b border-[var(--rule-2)]">
                {each.meaning}
              </span>
            ))}
            {read.unread.map((each) => (
              <span key={each}>
                <span className="seal">Word</span> “{each}” was not read and is left out
              </span>
            ))}
            <button type="button" className="link min-h-[30px]" onClick={() => setEditing(true)}>
              Change it
            </button>
          </p>
        )}
        {proposing.progress && (
          <Progress share={proposing.progress.share} words={proposing.progress.words} onStop={proposing.stop} />
        )}
        {(proposing.error || make.error) && (
          <p role="alert" className="py-1">
            <span className="seal">Not done</span> {(proposing.error ?? make.error)?.message}
          </p>
        )}
      </div>
      {found.length > 0 && (
        <Proposals
          found={found}
          tradeoffs={end?.tradeoffs ?? []}
          leftOut={end?.left_out ?? []}
          busy={make.isPending}
          onTake={(answer) => make.mutate(answer)}
        />
      )}
      <h2 className="pt-6 pb-1">Classes kept</h2>
      {query.data.length === 0 ? (
        <p className="ink-t py-3">
          None yet. Say above what the class is, take one of what is proposed, and it is kept here, with its day in
          Today.
        </p>
      ) : (
        <ul aria-label="Classes" className="ink-t">
          {query.data.map((row) => (
            <Row key={row.id} row={row} onGone={() => void query.refetch()} />
          ))}
        </ul>
      )}
      {editing && read && (
        <AskedForm
          asked={read.asked}
          needs={needs.data}
          word="Propose"
          onDone={(asked) => {
            setEditing(false);
            setRead({ ...read, asked, understood: [], unread: [] });
            propose(asked);
          }}
          onClose={() => setEditing(false)}
        />
      )}
    </main>
  );
}

/** What was asked, with the school and the waves of what is taken. */
function asAnswered(asked: Asked | undefined, answer: Answer): Asked {
  if (!asked) throw new Error("Nothing was asked yet.");
  const same = asked.school === answer.school;
  const own = same ? {} : { rounds: null, change_s: null };
  return {
    ...asked,
    ...own,
    school: answer.school as Asked["school"],
    target: answer.target as Asked["target"],
    waves: answer.waves.length,
  };
}

function Row({ row, onGone }: { row: Schemas["ClassRow"]; onGone: () => void }) {
  const on = row.on ? `, ${day(row.on)}${row.at ? ` at ${row.at.slice(0, 5)}` : ""}` : "";
  return (
    <li className="rule-t flex flex-wrap items-center justify-between gap-3 py-2">
      <Link className="min-h-[44px] min-w-[240px] flex-1 py-1 hover:underline" to={`/class/${row.id}`}>
        <b>{row.title}</b>
        <span className="quiet block text-[13px]">
          {row.school_name}, {row.people} people, {clock(row.total_s)}
          {on}
        </span>
      </Link>
      <Deleting
        name={row.title}
        warning="Its day goes off Today too; what was logged stays."
        remove={() => need(api.DELETE("/api/classes/{class_id}", { params: { path: { class_id: row.id } } }))}
        onGone={onGone}
      />
    </li>
  );
}
