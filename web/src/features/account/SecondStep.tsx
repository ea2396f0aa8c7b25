import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { encode } from "uqr";
import { door } from "../../api/door";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { FormEnd } from "../../ui/FormEnd";
import { authenticators } from "./authenticators";
import { Part } from "./Part";
import { useCertain } from "./useCertain";

const KEY = authenticators.queryKey;
const TOTP = "account/authenticators/totp";
const SPARE = "account/authenticators/recovery-codes";

interface Secret {
  secret: string;
  totp_url: string;
}
interface Spare {
  unused_codes?: string[];
}

/** A second step beside the password: a code of the moment, and spare codes for the day the phone is lost. */
export function SecondStep() {
  const query = useQuery(authenticators);
  const [offered, setOffered] = useState<Secret | null>(null);
  const [codes, setCodes] = useState<string[] | null>(null);
  const begin = useCertain(
    () => door("GET", TOTP, { also: [404] }),
    KEY,
    ({ meta }) => setOffered(meta as Secret),
  );
  const show = useCertain(
    (method: "GET" | "POST") => door<Spare>(method, SPARE, method === "POST" ? { body: {} } : {}),
    KEY,
    ({ data }) => setCodes(data.unused_codes ?? []),
  );
  const end = useCertain(
    () => door("DELETE", TOTP),
    KEY,
    () => setCodes(null),
  );
  const has = (type: string) => query.data?.data.find((each) => each.type === type);
  const spare = has("recovery_codes")?.unused_code_count ?? 0;
  const fault = faultBeside(begin.error ?? show.error ?? end.error ?? query.error, []);
  return (
    <Part
      title="Second step"
      text="Beside the password, a code that an authenticator app on your phone shows. Whoever learns the password alone does not come in."
      fault={fault}
    >
      {has("totp") ? (
        <p className="flex flex-wrap items-center gap-3 pt-2">
          <span>
            <b>On.</b> {spare} spare {spare === 1 ? "code" : "codes"} left.
          </span>
          <button type="button" className="act" onClick={() => show.mutate("GET")}>
            Show the spare codes
          </button>
          <button type="button" className="act" onClick={() => show.mutate("POST")}>
            Make new ones
          </button>
          <button type="button" className="act" disabled={end.isPending} onClick={() => end.mutate()}>
            Turn it off
          </button>
        </p>
      ) : offered ? (
        <Offer
          offered={offered}
          onDone={() => {
            setOffered(null);
            show.mutate("GET");
          }}
          onClose={() => setOffered(null)}
        />
      ) : (
        <p className="pt-2">
          <button type="button" className="act" disabled={begin.isPending} onClick={() => begin.mutate()}>
            Set it up
          </button>
        </p>
      )}
      {codes && has("totp") && (
        <div className="mt-3 border border-[var(--ink)] bg-[var(--sheet)] p-3">
          <p>Each opens once, in place of the app's code. Write them down and keep them apart from your phone.</p>
          <ul aria-label="Spare codes" className="figures grid grid-cols-2 gap-x-6 pt-2 min-[600px]:grid-cols-5">
            {codes.map((code) => (
              <li key={code}>{code}</li>
            ))}
          </ul>
        </div>
      )}
      {begin.asking}
      {show.asking}
      {end.asking}
    </Part>
  );
}

function Offer({ offered, onDone, onClose }: { offered: Secret; onDone: () => void; onClose: () => void }) {
  const [code, setCode] = useState("");
  const keep = useCertain(
    (typed: string) => door("POST", TOTP, { body: { code: typed.replaceAll(" ", "") } }),
    KEY,
    onDone,
  );
  function submit(event: FormEvent) {
    event.preventDefault();
    keep.mutate(code);
  }
  return (
    <div>
      <form onSubmit={submit} className="flex flex-wrap gap-5 pt-3">
        <Drawn text={offered.totp_url} />
        <div className="grid max-w-[420px] flex-1 content-start gap-3">
          <p>
            Point the app's camera at this, or type <b className="figures break-all">{offered.secret}</b> into it.
          </p>
          <TextField
            label="The six figures that it shows"
            inputMode="numeric"
            autoComplete="one-time-code"
            required
            value={code}
            fault={faultOf(keep.error, "code")}
            onChange={(event) => setCode(event.target.value)}
          />
          <FormEnd
            word="Turn it on"
            busyWord="One moment …"
            busy={keep.isPending}
            error={keep.error}
            fields={["code"]}
            onClose={onClose}
          />
        </div>
      </form>
      {keep.asking}
    </div>
  );
}

/** A text as a picture for a camera. */
function Drawn({ text }: { text: string }) {
  const { data, size } = encode(text, { border: 2 });
  const path = data.flatMap((row, y) => row.map((dark, x) => (dark ? `M${x} ${y}h1v1h-1z` : ""))).join("");
  return (
    <svg
      role="img"
      aria-label="The secret as a picture for the app's camera"
      width={190}
      height={190}
      viewBox={`0 0 ${size} ${size}`}
      shapeRendering="crispEdges"
      className="border border-[var(--ink)] bg-white"
    >
      <path d={path} fill="#000" />
    </svg>
  );
}
