// @vitest-environment jsdom

import { onlineManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act } from "react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { evaluation } from "../../api/queries";
import { type Draft, emptyDraft } from "../../domain/session/draft";
import { newPart } from "../../domain/session/tree";
import { makePlace } from "../../testing/mount";
import { useFirstAnswer } from "./useEvaluation";

const place = makePlace();

function Bench({ draft }: { draft: Draft | null }) {
  return useFirstAnswer(draft) ? "drawn" : "waiting";
}

describe("a session that is opened", () => {
  beforeEach(() => onlineManager.setOnline(false));
  afterEach(() => onlineManager.setOnline(true));
  const empty = emptyDraft();
  const draft = { ...empty, document: { ...empty.document, parts: [newPart("Main set")] } };
  const shown = (client: QueryClient, of: Draft | null) =>
    place.show(
      <QueryClientProvider client={client}>
        <Bench draft={of} />
      </QueryClientProvider>,
    );

  it("waits for its first answer, and an empty one for none", () => {
    expect(shown(new QueryClient(), null).textContent).toBe("waiting");
    expect(shown(new QueryClient(), draft).textContent).toBe("waiting");
    expect(shown(new QueryClient(), empty).textContent).toBe("drawn");
  });

  it("stays on the bench, whatever becomes of that answer", async () => {
    const client = new QueryClient();
    const { personId: person_id, target, document } = draft;
    const asked = { document, person_id, target, wbgt_c: null, ranges: false };
    const page = shown(client, draft);
    const question = client.getQueryCache().find({ queryKey: evaluation(asked).queryKey });
    const failed = (times: number) =>
      act(async () => {
        question?.setState({ fetchFailureCount: times });
        await new Promise((heard) => setTimeout(heard));
      });
    await failed(1);
    expect(page.textContent).toBe("drawn");
    await failed(0);
    expect(page.textContent).toBe("drawn");
  });
});
