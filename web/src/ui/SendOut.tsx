import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { askAnew } from "../api/askAnew";
import { api, need, type Schemas } from "../api/client";
import { links as linksQuery, people as peopleQuery } from "../api/queries";
import { once } from "../domain/once";
import { nameAndSport } from "../domain/person";
import { day } from "../domain/time";
import { Address } from "./Address";
import { Choice } from "./Choice";
import { faultBeside, faultOf, SelectField, TextField } from "./Field";
import { Sheet } from "./Sheet";
import { Tracks } from "./Tracks";
import { useTrains } from "./useTrains";

interface Props {
  /** Without an id where the session is gone: then only what was done of it can be sent. */
  session: { id: number | null; title: string; personId: number | null };
  /** The entry of the log it is sent from, where its heart rate is kept. */
  heartOf?: number | undefined;
  onClose: () => void;
}

/** The one menu of what leaves the hall, whatever it is of. */
export function OutSheet({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  return (
    <Sheet label={`Send out ${title}`} className="w-[min(660px,calc(100vw-16px))]" onClose={onClose}>
      <div className="flex items-baseline justify-between gap-4">
        <h2>Send out: {title}</h2>
        <button type="button" className="link min-h-[44px]" onClick={onClose}>
          Close
        </button>
      </div>
      {children}
    </Sheet>
  );
}

/** Everything of a session that can leave the hall, at one place. */
export function SendOut({ session, heartOf, onClose }: Props) {
  const trains = useTrains();
  const people = useQuery(peopleQuery).data ?? [];
  const options = people.map((person) => ({ id: String(person.id), name: nameAndSport(person) }));
  const { id } = session;
  const kept = id === null ? null : { ...session, id };
  return (
    <OutSheet title={session.title} onClose={onClose}>
      {kept && (
        <>
          <WallSheet session={kept} options={options} />
          <Tracks sessionId={kept.id} />
          {trains && <Links session={kept} options={options} />}
        </>
      )}
      <section aria-label="Files" className="rule-t mt-4 pt-3">
        <h3>Files</h3>
        <p className="quiet pb-2 text-[13px]">
          {kept
            ? "The session in Yoisho's open format, to bring into another club."
            : "The session is not in the library any more; what was measured of it is kept."}
        </p>
        <p className="flex flex-wrap gap-2">
          {kept && (
            <a className="act" href={`/api/sessions/${kept.id}/export`} download>
              Session document
            </a>
          )}
          {heartOf !== undefined && (
            <>
              <a className="act" href={`/api/log/${heartOf}/heart-trace?form=tcx`} download>
                Heart rate as TCX
              </a>
              <a className="act" href={`/api/log/${heartOf}/heart-trace?form=csv`} download>
                Heart rate as CSV
              </a>
            </>
          )}
        </p>
      </section>
    </OutSheet>
  );
}

/** The key that opens it. */
export function SendOutKey({ session, heartOf }: Omit<Props, "onClose">) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="act" aria-label={`Send out ${session.title}`} onClick={() => setOpen(true)}>
        Send out
      </button>
      {open && <SendOut session={session} heartOf={heartOf} onClose={() => setOpen(false)} />}
    </>
  );
}

interface PartProps {
  session: { id: number; title: string; personId: number | null };
  options: { id: string; name: string }[];
}

const PAPERS = [
  { id: "a4", name: "A4" },
  { id: "letter", name: "Letter" },
];

function WallSheet({ session, options }: PartProps) {
  const [paper, setPaper] = useState("a4");
  const [who, setWho] = useState(String(session.personId ?? ""));
  const asked = new URLSearchParams({ paper, ...(who ? { person_id: who } : {}) });
  return (
    <section aria-label="Wall sheet" className="rule-t mt-2 pt-3">
      <h3>Wall sheet</h3>
      <p className="quiet pb-2 text-[13px]">
        One page in black: score, lines, combinations spelled out, strikes, cautions. Nothing of anybody's health is on
        it.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Choice label="Paper" value={paper} options={PAPERS} onChange={setPaper} />
        <Choice label="Strikes for" value={who} none="anybody" options={options} onChange={setWho} />
        <a
          className="act main"
          href={`/api/sessions/${session.id}/wall-sheet?${asked}`}
          target="_blank"
          rel="noreferrer"
        >
          Open the PDF
        </a>
      </div>
    </section>
  );
}

function Links({ session, options }: PartProps) {
  const client = useQueryClient();
  const query = useQuery(linksQuery(session.id));
  const [who, setWho] = useState(String(session.personId ?? ""));
  const [lastDay, setLastDay] = useState("");
  const refresh = () => askAnew(client, { queryKey: linksQuery(session.id).queryKey });
  const make = useMutation({
    mutationFn: () => {
      const body = { session_id: session.id, person_id: who ? Number(who) : null, last_day: lastDay || null };
      return once(["link", body], (headers) => need(api.POST("/api/links", { body, headers })));
    },
    onSuccess: refresh,
  });
  const open = query.data?.filter((link) => !link.ended) ?? [];
  const ended = (query.data?.length ?? 0) - open.length;
  return (
    <section aria-label="Links" className="rule-t mt-4 pt-3">
      <h3>Link for a phone</h3>
      <p className="quiet pb-2 text-[13px]">
        Whoever has it can read the session, run it, also without a network, and send back how it went. It shows no name
        and nothing of anybody's health.
      </p>
      <form
        className="grid items-start gap-3 min-[560px]:grid-cols-[1fr_150px_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <SelectField label="For" value={who} none="anybody" options={options} onChange={setWho} />
        <TextField
          label="Last day"
          hint="Left open, no end."
          type="date"
          value={lastDay}
          fault={faultOf(make.error, "last_day")}
          onChange={(event) => setLastDay(event.target.value)}
        />
        <button type="submit" className="act main mt-[22px]" disabled={make.isPending}>
          {make.isPending ? "Making …" : "Make a link"}
        </button>
      </form>
      {faultBeside(make.error, ["last_day"]) && <p role="alert">{faultBeside(make.error, ["last_day"])}</p>}
      {query.error ? (
        <p role="alert">{query.error.message}</p>
      ) : !query.data ? (
        <p role="status" className="quiet">
          Looking for links …
        </p>
      ) : (
        <ul>
          {open.map((link) => (
            <Row key={link.id} link={link} onGone={refresh} />
          ))}
        </ul>
      )}
      {query.data && open.length === 0 && <p className="pt-2">No link opens this session yet.</p>}
      {ended > 0 && (
        <p className="quiet pt-2 text-[13px]">
          {ended} {ended === 1 ? "link has" : "links have"} ended.
        </p>
      )}
    </section>
  );
}

/** A link that opens, whom it is for and what came of it. */
function Row({ link, onGone }: { link: Schemas["LinkOut"]; onGone: () => void }) {
  const takeBack = useMutation({
    mutationFn: () => need(api.DELETE("/api/links/{link_id}", { params: { path: { link_id: link.id } } })),
    onSuccess: onGone,
  });
  const times = `opened ${link.openings} ${link.openings === 1 ? "time" : "times"}`;
  return (
    <li className="rule-t mt-3 grid gap-3 pt-3 min-[480px]:grid-cols-[132px_1fr]">
      <img src={link.code} alt={`Code of the link for ${link.person ?? "anybody"}`} width={132} height={132} />
      <div className="min-w-0">
        <p>
          <b>For {link.person ?? "anybody"}</b>
          {link.last_day ? `, until ${day(link.last_day)}` : ", without an end"}
        </p>
        <p className="quiet text-[13px]">
          {times}
          {link.sent_back > 0 && `, ${link.sent_back} sent back and waiting in the log`}
        </p>
        <Address label={`Link for ${link.person ?? "anybody"}`} address={link.address} takingBack={takeBack} />
      </div>
    </li>
  );
}
