// @vitest-environment jsdom

import { QueryClientProvider } from "@tanstack/react-query";
import { act } from "react";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { makeQueryClient, nudges } from "../../api/queries";
import { emptyDraft } from "../../domain/session/draft";
import { makePlace } from "../../testing/mount";
import { Nudges } from "./Nudges";

const { show } = makePlace();
const asked: Schemas["NudgeIn"] = { document: emptyDraft().document, target: "sprint-power" };
const nudge = (name: string, more: Partial<Schemas["NudgeOut"]> = {}): Schemas["NudgeOut"] => ({
  name,
  part: 1,
  document: { ...emptyDraft().document, title: name },
  strokes: 4,
  changes: ["a", "b", "c", "d"].map((each) => ({ name: each, before: "1", after: "2" })),
  cures: [],
  ...more,
});

function list(found: Schemas["NudgeOut"][] | Error, onApply = vi.fn()) {
  const client = makeQueryClient();
  const query = nudges(asked);
  if (found instanceof Error) {
    client.setQueryDefaults(query.queryKey, { retryOnMount: false });
    client.getQueryCache().build(client, { queryKey: query.queryKey }).setState({ status: "error", error: found });
  } else client.setQueryData(query.queryKey, found);
  const place = show(
    <QueryClientProvider client={client}>
      <Nudges asked={asked} partNames={["Warm-up", "Bursts"]} purpose="sprint power" onApply={onApply} />
    </QueryClientProvider>,
  );
  return { place, onApply };
}

describe("nudges", () => {
  it("are told with their row, their verdict and the three changes that matter most", () => {
    const { place } = list([nudge("0:05 shorter all out", { cures: ["fade"] })]);
    expect(place.querySelector("li")?.textContent).toContain("0:05 shorter all out in Bursts");
    expect(place.querySelector("li")?.textContent).toContain("4 of 5; answers a caution; a 1 to 2; b 1 to 2; c 1 to 2");
    expect(place.textContent).not.toContain("d 1 to 2");
  });

  it("hand over the whole session when they are applied", () => {
    const { place, onApply } = list([nudge("1 round more"), nudge("1 round fewer")]);
    act(() => place.querySelector<HTMLButtonElement>("li:last-child button")?.click());
    expect(onApply.mock.calls[0]?.[0].title).toBe("1 round fewer");
    expect(onApply.mock.calls[0]?.[1]).toContain("Ctrl Z takes it back");
  });

  it("of what lay here before an edit cannot take the place of what was edited", () => {
    const client = makeQueryClient();
    client.setQueryData(nudges(asked).queryKey, [nudge("1 round more")]);
    const onApply = vi.fn();
    const lying = (document: Schemas["SessionDocument"]) =>
      show(
        <QueryClientProvider client={client}>
          <Nudges asked={{ ...asked, document }} partNames={[]} purpose="skill" onApply={onApply} />
        </QueryClientProvider>,
      );
    const apply = (place: HTMLElement) => place.querySelector<HTMLButtonElement>("li button");
    expect(apply(lying(asked.document))?.disabled).toBe(false);
    const edited = lying({ ...asked.document, title: "Edited since" });
    expect(apply(edited)?.disabled).toBe(true);
    act(() => apply(edited)?.click());
    expect(onApply).not.toHaveBeenCalled();
  });

  it("say why where they could not be worked out, and not that there is none", () => {
    const { place } = list(new Error("This person is not there any more."));
    expect(place.querySelector("[role=alert]")?.textContent).toContain("not there any more");
    expect(place.textContent).not.toContain("No small change");
  });

  it("say where there is none", () => {
    expect(list([]).place.textContent).toContain("No small change makes it better.");
  });
});
