import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import type { Drawn } from "../../charts/columns/drawn";
import type { Draft } from "../../domain/session/draft";
import { Compare } from "./compare/Compare";
import type { View } from "./deskState";
import { Proposals } from "./propose/Proposals";
import type { useProposals } from "./propose/useProposals";
import { Scale } from "./scale/Scale";

interface Props {
  sessionId: number | null;
  view: View;
  draft: Draft;
  /** The session as it lies here, where it is judged. */
  now: Drawn | null;
  purpose: string;
  person: string;
  people: Schemas["PersonOut"][];
  vocabulary: Schemas["Vocabulary"];
  proposals: ReturnType<typeof useProposals>;
  onTake: (proposal: Schemas["ProposalOut"], mainOnly: boolean) => void;
  onPut: (next: Partial<Draft>, words: string) => void;
  onClose: () => void;
}

/** What takes the place of the desk for a while: proposals, two sessions side by side, the session scaled. */
export function Over(props: Props) {
  const { sessionId, view, draft, now, purpose, person, people, vocabulary, proposals, onTake, onPut, onClose } = props;
  const navigate = useNavigate();
  if (proposals.shown) {
    return (
      <Proposals
        proposals={proposals.shown}
        now={now}
        purpose={purpose}
        person={person}
        limits={proposals.limits}
        vocabulary={vocabulary}
        searching={proposals.searching}
        said={proposals.refused}
        onLimits={proposals.setLimits}
        onTake={onTake}
        onClose={proposals.close}
      />
    );
  }
  if (view.kind === "compare") {
    return (
      <Compare
        sessionId={sessionId}
        draft={draft}
        person={person}
        first={view.first}
        onTake={onPut}
        onClose={onClose}
      />
    );
  }
  if (!now) return null;
  const put = (scaled: Schemas["ScaledOut"]) => {
    const changed = scaled.steps.length ? `Changed: ${scaled.steps.join(", ")}.` : "It fits as it is.";
    const next = { document: scaled.document, personId: scaled.person_id ?? draft.personId };
    onPut(next, `For ${scaled.name}. ${changed} Ctrl Z brings back what was here.`);
  };
  const copy = (scaled: Schemas["ScaledOut"]) => {
    const title = `${draft.document.title.slice(0, 70)}, ${scaled.name}`.slice(0, 120);
    const said = `For ${scaled.name}. Save it, and it stands in the library.`;
    const lay = { kind: "session", document: { ...scaled.document, title }, target: draft.target, said };
    navigate("/bench", { state: { lay } });
  };
  return (
    <Scale
      asked={{ document: draft.document, person_id: draft.personId, target: draft.target }}
      now={now}
      person={person}
      people={people}
      rules={vocabulary.rules}
      onTake={put}
      onCopy={copy}
      onClose={onClose}
    />
  );
}
