import { useState } from "react";
import type { Schemas } from "../../api/client";
import { type Course, placesOf, type TestEvent, type TestState } from "../../domain/clock/fieldTest";
import { clock, today } from "../../domain/time";
import { faultBeside, faultOf, TextField } from "../../ui/Field";
import { Twice } from "../../ui/Twice";
import { keepTest, usePageAct } from "./useRoster";

interface AskedProps {
  course: Course;
  stage: number;
  state: TestState;
  send: (event: TestEvent) => void;
}

/** The counts of one stage: as tapped or told by the strap, to be typed over. */
export function Asked({ course, stage, state, send }: AskedProps) {
  const { first, many } = placesOf(course, stage);
  const seconds = (course.stages[stage]?.seconds ?? 0) / many;
  return (
    <fieldset className="w-full max-w-[720px]">
      <legend className="pb-2 text-[22px] font-semibold">{course.asks}</legend>
      <div className={`grid gap-3 ${many > 1 ? "grid-cols-2 min-[700px]:grid-cols-3" : "justify-center"}`}>
        {state.counts.slice(first, first + many).map((count, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the pieces of a stage stay where they are
          <label key={index} className="text-left">
            {many > 1
              ? `${clock(index * seconds)} to ${clock((index + 1) * seconds)}`
              : (course.stages[stage]?.name ?? "")}
            <input
              className="field mt-1 min-h-[56px] text-[24px]"
              inputMode="numeric"
              // biome-ignore lint/a11y/noAutofocus: it is what the end of a part asks for
              autoFocus={index === 0}
              value={count ?? ""}
              onChange={({ target: { value } }) => {
                if (/^\d{0,4}$/.test(value)) {
                  send({ kind: "tell", place: first + index, count: value === "" ? null : Number(value) });
                }
              }}
            />
          </label>
        ))}
      </div>
    </fieldset>
  );
}

interface ResultProps extends Omit<AskedProps, "stage"> {
  person: Schemas["PersonOut"];
  kind: Schemas["FieldTestIn"]["kind"];
  /** The test is over with: kept, or thrown away. */
  onKept: () => void;
}

/** All parts were done: where, who counted, and keep it. */
export function Result({ person, kind, course, state, send, onKept }: ResultProps) {
  const act = usePageAct(person.id);
  const [where, setWhere] = useState("");
  const [by, setBy] = useState("");
  const strikes = kind === "strikes";
  function save() {
    const body: Schemas["FieldTestIn"] = {
      kind,
      on: today(),
      value: strikes ? null : (state.counts[0] ?? null),
      counts: strikes ? state.counts.map((count) => count ?? 0) : null,
      where,
      counted_by: by,
    };
    act.mutate(() => keepTest(person.id, body), { onSuccess: onKept });
  }
  const others = faultBeside(act.error, ["counts", "value", "where", "counted_by"]);
  const wrong = faultOf(act.error, "counts") ?? faultOf(act.error, "value") ?? others;
  return (
    <main className="mx-auto grid max-w-[720px] gap-4 px-4 py-8">
      <h1>Is that right?</h1>
      <p className="quiet">{person.name}, today. What was counted can be typed over.</p>
      {course.stages.map((stage, index) => (
        <Asked key={stage.name} course={course} stage={index} state={state} send={send} />
      ))}
      <div className="grid gap-3 min-[600px]:grid-cols-2">
        <TextField
          label="Bag or track"
          maxLength={60}
          value={where}
          fault={faultOf(act.error, "where")}
          onChange={(event) => setWhere(event.target.value)}
        />
        <TextField
          label="Who counted"
          maxLength={60}
          value={by}
          fault={faultOf(act.error, "counted_by")}
          onChange={(event) => setBy(event.target.value)}
        />
      </div>
      {wrong && (
        <p role="alert">
          <span className="seal">Not done</span> {wrong}
        </p>
      )}
      <p className="flex flex-wrap gap-2">
        <button
          type="button"
          className="act main min-h-[52px]"
          disabled={act.isPending || state.counts.includes(null)}
          onClick={save}
        >
          {act.isPending ? "Saving …" : "Keep the test"}
        </button>
        <Twice word="Throw it away" sure="Yes, throw these counts away" className="act min-h-[52px]" onDo={onKept} />
      </p>
    </main>
  );
}
