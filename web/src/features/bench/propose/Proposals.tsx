import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { Column, Columns } from "../../../charts/columns/Column";
import { answered, type Drawn } from "../../../charts/columns/drawn";
import { Now } from "../../../charts/columns/Now";
import { Page } from "../../../charts/columns/Page";
import { Spoken } from "../../../charts/columns/Spoken";
import { LimitsRow } from "./LimitsRow";
import type { Limits } from "./useProposals";

type Proposal = Schemas["ProposalOut"];

interface Props {
  proposals: Proposal[];
  /** What is on the bench now, if anything has been worked out. */
  now: Drawn | null;
  purpose: string;
  person: string;
  limits: Limits;
  vocabulary: Schemas["Vocabulary"];
  searching: boolean;
  said: string | null;
  onLimits: (limits: Limits) => void;
  onTake: (proposal: Proposal, mainOnly: boolean) => void;
  onClose: () => void;
}

const NUMBERS = ["None", "One way", "Two ways", "Three ways", "Four ways", "Five ways"];

/** Protocols of different schools side by side on one time axis, with what each changes from what is on the bench. */
export function Proposals(props: Props) {
  const { proposals, now, purpose, person, limits, searching, said, onTake, onClose } = props;
  const [mainOnly, setMainOnly] = useState(false);
  const longest = Math.max(now?.compared.total_s ?? 0, ...proposals.map((proposal) => proposal.total_s), 1);
  return (
    <Page
      title={`${NUMBERS[proposals.length] ?? `${proposals.length} ways`} to ${purpose}`}
      under={
        <>
          for <b className="text-[var(--ink)]">{person}</b>, up to {limits.minutes}:00, each of another school, and
          simulated
        </>
      }
      said={searching ? "Searching the schools …" : said}
      onNumber={(index) => {
        const chosen = proposals[index];
        if (chosen) onTake(chosen, mainOnly);
      }}
      onClose={onClose}
      limits={
        <LimitsRow
          limits={limits}
          vocabulary={props.vocabulary}
          mainOnly={now ? mainOnly : null}
          onLimits={props.onLimits}
          onMainOnly={setMainOnly}
        />
      }
    >
      <Columns count={proposals.length + (now ? 1 : 0)} dim={searching}>
        {now && <Now now={now} longest={longest} />}
        {proposals.map((proposal, index) => (
          <Column
            key={proposal.name}
            label={`${SCHOOLS[proposal.school] ?? proposal.school}${index === 0 ? ". Best fit" : ""}`}
            {...answered(proposal.name, proposal)}
            text={proposal.text}
            words={
              <>
                {proposal.why} {proposal.tradeoff} <span className="quiet">{proposal.sentence}</span>
                <Spoken cautions={proposal.cautions} />
              </>
            }
            against={now?.compared ?? null}
            longest={longest}
            best={index === 0}
          >
            <p className="quiet text-[12px]">Source: {proposal.source}</p>
            <button
              type="button"
              className={`act self-start ${index === 0 ? "main" : ""}`}
              disabled={searching}
              onClick={() => onTake(proposal, mainOnly)}
            >
              <kbd className="rounded-[2px] border border-current px-[6px] text-[12px]">{index + 1}</kbd> Put on the
              bench
            </button>
          </Column>
        ))}
      </Columns>
    </Page>
  );
}

const SCHOOLS: Record<string, string> = {
  lab: "From the lab",
  track: "From the track",
  ring: "From the ring",
  gym: "From the gym",
  hall: "From the hall",
};
