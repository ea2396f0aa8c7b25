import { useMutation, useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { useNavigate } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { protocols as protocolsQuery, vocabulary as vocabularyQuery } from "../../api/queries";
import { SmallScore } from "../../charts/score/SmallScore";
import type { ToLay } from "../../domain/session/toLay";
import { clock } from "../../domain/time";
import { LIBRARY, useKeys } from "../../ui/keymap";
import { Notice } from "../../ui/Notice";
import { useTrains } from "../../ui/useTrains";
import { find } from "./find";
import { Head } from "./Head";

type Protocol = Schemas["ProtocolOut"];
type Version = Schemas["VersionOut"];

const standard = (protocol: Protocol): Version | undefined =>
  protocol.versions.find((version) => version.scale === "club") ?? protocol.versions[0];

/** The schools' protocols: what each is, why, for whom, and one key to the Bench. */
export function Schools() {
  const query = useQuery(protocolsQuery);
  const targets = useQuery(vocabularyQuery).data?.targets;
  const [search, setSearch] = useState("");
  const [chosen, setChosen] = useState<string | null>(null);
  const [version, setVersion] = useState<number | null>(null);
  const nameOf = useMemo(() => {
    const names = new Map<string, string>(targets?.map((target) => [target.id, target.name]));
    return (id: string) => names.get(id) ?? id;
  }, [targets]);
  const list = useRef<HTMLUListElement>(null);
  const open = useOpen();
  useKeys(LIBRARY, { search: () => document.querySelector<HTMLInputElement>("[data-search]")?.focus() });
  if (!query.data) return <Notice asked={query} title="Opening the schools' protocols" />;

  const found = find(query.data, search, nameOf);
  const protocol = found.find((each) => each.id === chosen) ?? found[0];
  const shown = protocol?.versions.find((each) => each.index === version) ?? (protocol && standard(protocol));
  const choose = (id: string) => {
    setChosen(id);
    setVersion(null);
  };
  const onRowKey = (event: KeyboardEvent) => {
    const at = found.findIndex((each) => each.id === protocol?.id);
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    const next = found[Math.min(found.length - 1, Math.max(0, at + step))];
    if (step && next) {
      event.preventDefault();
      flushSync(() => choose(next.id));
      list.current?.querySelector<HTMLButtonElement>(`[data-protocol="${next.id}"]`)?.focus();
    } else if (event.key === "Enter" && protocol && shown) {
      event.preventDefault();
      open.mutate({ protocol, version: shown });
    } else if ((event.key === "ArrowRight" || event.key === "ArrowLeft") && protocol && shown) {
      event.preventDefault();
      const count = protocol.versions.length;
      setVersion((shown.index + (event.key === "ArrowRight" ? 1 : count - 1)) % count);
    }
  };
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <Head>
        <label className="label-text w-full min-[700px]:w-[300px]">
          <span className="block pb-1">Search: a name, an effort, a modality, a purpose</span>
          <input
            data-search
            type="search"
            className="field"
            value={search}
            placeholder="carry, tabata, kicks, pairs …"
            onChange={(event) => setSearch(event.target.value)}
          />
        </label>
      </Head>
      {!protocol || !shown ? (
        <Notice
          title="No protocol has all these words"
          text="Try fewer, or one the lines would hold: power, skip, pairs."
        >
          <button type="button" className="act" onClick={() => setSearch("")}>
            Show all
          </button>
        </Notice>
      ) : (
        <div className="grid gap-x-8 min-[900px]:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
          <ul ref={list} aria-label="Protocols" className="max-[899px]:max-h-[44vh] max-[899px]:overflow-y-auto">
            {found.map((each) => {
              const club = standard(each);
              return (
                <li key={each.id} className="border-b border-[var(--rule)]">
                  <button
                    type="button"
                    data-protocol={each.id}
                    aria-current={each.id === protocol.id}
                    tabIndex={each.id === protocol.id ? 0 : -1}
                    className={`grid w-full cursor-pointer grid-cols-[1fr_120px] items-center gap-x-4 px-2 py-[7px] text-left min-[1100px]:grid-cols-[1fr_190px] ${
                      each.id === protocol.id ? "bg-[var(--sheet)]" : "hover:bg-[#E9E3D5]"
                    }`}
                    onClick={() => choose(each.id)}
                    onKeyDown={onRowKey}
                  >
                    <span>
                      <b>{each.name}</b>
                      <span className="quiet block text-[13px] leading-[17px]">
                        {nameOf(each.target)}
                        {club ? `, ${clock(club.total_s)}` : ""}
                      </span>
                    </span>
                    <span className="h-[30px]">
                      {club && <SmallScore blocks={club.blocks} label={`${each.name} drawn small`} />}
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
          <Detail
            protocol={protocol}
            version={shown}
            nameOf={nameOf}
            opening={open.isPending}
            failed={open.error?.message ?? null}
            onVersion={setVersion}
            onOpen={() => open.mutate({ protocol, version: shown })}
          />
        </div>
      )}
    </main>
  );
}

/** Fetches a version as a whole session and goes to the Bench with it. */
function useOpen() {
  const navigate = useNavigate();
  return useMutation({
    mutationFn: ({ protocol, version }: { protocol: Protocol; version: Version }) =>
      need(
        api.GET("/api/protocols/{protocol_id}/{index}", {
          params: { path: { protocol_id: protocol.id, index: version.index } },
        }),
      ),
    onSuccess: (found, { protocol }) => {
      const said = `${protocol.name} from the library. Ctrl Z brings back what was here.`;
      const lay: ToLay = { kind: "session", document: found.document, target: found.target, said };
      navigate("/bench", { state: { lay } });
    },
  });
}

interface DetailProps {
  protocol: Protocol;
  version: Version;
  nameOf: (target: string) => string;
  opening: boolean;
  failed: string | null;
  onVersion: (index: number) => void;
  onOpen: () => void;
}

function Detail({ protocol, version, nameOf, opening, failed, onVersion, onOpen }: DetailProps) {
  const trains = useTrains();
  return (
    <section aria-label={protocol.name} className="pt-4 min-[900px]:sticky min-[900px]:top-0 min-[900px]:self-start">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h2>{protocol.name}</h2>
          <p className="quiet text-[13px]">
            For {nameOf(protocol.target)}. Source: {protocol.source}.
          </p>
        </div>
        {trains && (
          <button type="button" className="act main" disabled={opening} onClick={onOpen}>
            {opening ? "Opening …" : "Open on the Bench"}
          </button>
        )}
      </div>
      {failed && (
        <p role="alert" className="pt-2">
          <span className="seal">Stopped</span> {failed}
        </p>
      )}
      <p className="pt-3">{protocol.meaning}</p>
      <p className="pt-1">{protocol.reason}</p>
      <fieldset className="mt-3">
        <legend className="label-text pb-1">For whom, and in which form</legend>
        <div className="flex flex-wrap gap-2">
          {protocol.versions.map((each) => (
            <label
              key={each.index}
              className={`flex min-h-[30px] cursor-pointer items-center rounded-[2px] border px-[10px] text-[13px] has-focus-visible:outline-2 has-focus-visible:outline-offset-2 max-[899px]:min-h-[44px] ${
                each.index === version.index
                  ? "border-[var(--ink)] bg-[var(--ink)] text-[var(--sheet)]"
                  : "border-[var(--rule-2)] bg-[var(--sheet)]"
              }`}
            >
              <input
                type="radio"
                name="version"
                className="sr-only"
                checked={each.index === version.index}
                onChange={() => onVersion(each.index)}
              />
              {each.name}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="mt-4 h-[70px]">
        <SmallScore
          blocks={version.blocks}
          label={`${protocol.name}, ${version.name}: ${clock(version.total_s)}, ${version.strikes} strikes`}
        />
      </div>
      <p className="pt-2 text-[15px] whitespace-pre-line">{version.lines}</p>
      <p className="quiet pt-1 text-[13px]">{version.meaning.join(" ")}</p>
      <p className="pt-2">
        <b>{clock(version.total_s)}</b>, of it {clock(version.work_s)} work, about <b>{version.strikes}</b> strikes;
        warm-up and cool-down come on top. {version.note}
      </p>
      <h3 className="pt-3">Cautions</h3>
      <ul className="pt-1 text-[13px]">
        {protocol.cautions.map((caution) => (
          <li key={caution} className="pt-[2px]">
            {caution}
          </li>
        ))}
        <li className="quiet pt-1">The Bench adds those that this person and this day call for.</li>
      </ul>
      <p className="quiet hidden pt-4 text-[13px] min-[900px]:block">
        / search · ↑↓ protocol · ←→ version · Enter opens it on the Bench
      </p>
    </section>
  );
}
