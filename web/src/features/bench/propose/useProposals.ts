import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { proposals as proposalsQuery } from "../../../api/queries";
import { useSettled } from "../../../ui/useSettled";

type Asked = Schemas["ProposeIn"];

export type Limits = Required<Pick<Asked, "minutes" | "modality" | "kicks" | "missing" | "avoid">> & {
  most_strikes: number | null;
  level: NonNullable<Asked["level"]> | null;
  rule_set: NonNullable<Asked["rule_set"]> | null;
};

const FREE: Limits = {
  minutes: 20,
  modality: "bag",
  kicks: true,
  most_strikes: null,
  missing: [],
  avoid: [],
  level: null,
  rule_set: null,
};

type For = Pick<Schemas["ProposeIn"], "target" | "person_id" | "wbgt_c">;

/**
 * The search of the schools for somebody, within limits that can be changed while its answer is shown. Nothing is shown
 * before the first answer; later ones take its place, and a refusal leaves it. `onNone` hears why nothing can be shown.
 */
export function useProposals(of: For, onNone: (why: string) => void) {
  const [limits, setLimits] = useState<Limits>(FREE);
  const [wanted, setWanted] = useState(false);
  const [shown, setShown] = useState<Schemas["ProposalOut"][] | null>(null);
  const settled = useSettled(limits, 250);
  const search = useQuery({ ...proposalsQuery({ ...of, ...settled }), enabled: wanted });
  const answer = wanted ? search.data?.proposals : undefined;
  const refused = wanted && search.error ? search.error.message : null;
  if (answer && answer !== shown) setShown(answer);
  if (refused && !shown) {
    setWanted(false);
    onNone(refused);
  }
  return {
    limits,
    setLimits,
    shown: wanted ? shown : null,
    refused,
    searching: wanted && (search.isFetching || settled !== limits),
    open: () => setWanted(true),
    close: () => {
      setWanted(false);
      setShown(null);
    },
  };
}
