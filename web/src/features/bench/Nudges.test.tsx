// @vitest-environment jsdom

import { QueryClientProvider } from "@tanstack/react-query";
import { act } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { makeQueryClient, nudges } from "../../api/queries";
import { emptyDraft } from "../../domain/session/draft";
import { makePlace } from "../../testing/mount";
import { Nudges } from "./Nudges";
import { useNudges } from "./useNudges";

const { show } = makePlace();
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
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

/** The list as the desk has it. */
function Desk(props: Omit<Parameters<typeof Nudges>[0], "query">) {
  return <Nudges query={useNudges(props.asked, true)} {...props} />;
}

function list(found: Schemas["NudgeOut"][] | Error, onApply = vi.fn()) {
  const client = makeQueryClient();
  const query = nudges(asked);
  if (found instanceof Error) {
    client.setQueryDefaults(query.queryKey, { retryOnMount: false });
    client.getQueryCache().build(client, { queryKey: query.queryKey }).setState({ status: "error", error: found });
  } else client.setQueryData(query.queryKey, found);
  const place = show(
    <QueryClientProvider client={client}>
      <Desk asked={asked} partNames={["Warm-up", "Bursts"]} purpose="sprint power" onApply={onApply} />
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

  it("of what lay here before an edit cannot take the place of what was edited, until its own have come", async () => {
    vi.useFakeTimers();
    const letGo: boolean[] = [];
    const fetched = vi.fn(
      ({ signal }: Request) =>
        new Promise<Response>((_, refuse) => {
          const at = letGo.push(false) - 1;
          signal.addEventListener("abort", () => {
            letGo[at] = true;
            refuse(signal.reason);
          });
        }),
    );
    vi.stubGlobal("fetch", fetched);
    const client = makeQueryClient();
    client.setQueryData(nudges(asked).queryKey, [nudge("1 round more")]);
    const onApply = vi.fn();
    const lying = (title: string) =>
      show(
        <QueryClientProvider client={client}>
          <Desk asked={at(title)} partNames={[]} purpose="skill" onApply={onApply} />
        </QueryClientProvider>,
      );
    const at = (title: string) => ({ ...asked, document: { ...asked.document, title } });
    const apply = (place: HTMLElement) => place.querySelector<HTMLButtonElement>("li button");
    const asTried = lying(asked.document.title);
    expect(apply(asTried)?.disabled).toBe(false);
    expect(asTried.textContent).not.toContain("trying");
    const edited = lying("Edited since");
    expect(apply(edited)?.disabled).toBe(true);
    expect(edited.textContent).toContain("trying those of now");
    await act(() => vi.advanceTimersByTimeAsync(700));
    expect(letGo).toEqual([false]);
    expect(apply(edited)?.disabled).toBe(true);
    act(() => apply(edited)?.click());
    expect(onApply).not.toHaveBeenCalled();
    lying("And edited once more");
    expect(letGo).toEqual([true]);
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
