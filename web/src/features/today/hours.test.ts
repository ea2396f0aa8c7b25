import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { hourOf, minutesOf, nextOf, spanOf, untilThen, written } from "./hours";

type Planned = Schemas["PlannedOut"];
const at = (hour: string, minutes: number, done = false) =>
  ({ at: hour, total_s: 60 * minutes, done: done ? { people: 1, rpe: 5, expected: 5 } : null }) as Planned;

describe("the hours of a day", () => {
  it("are read and told by the clock", () => {
    expect(minutesOf("18:20:00")).toBe(1100);
    expect(hourOf(1100)).toBe("18:20");
    expect(hourOf(425)).toBe("7:05");
  });

  it("go from six to ten, and further where something is planned", () => {
    expect(spanOf([])).toEqual([360, 1320]);
    expect(spanOf([at("05:30", 30), at("21:50", 40)])).toEqual([300, 1380]);
  });

  it("are written over sessions so that none covers another", () => {
    const day = ["18:30", "12:10", "18:20", "19:10"].map((hour, id) => ({ ...at(hour, 30), id }));
    expect(written(day, 40)).toEqual(new Set([1, 2, 3]));
    expect(written(day, 10)).toEqual(new Set([0, 1, 2, 3]));
  });

  it("have a next session: what is on now, or comes first and is not logged", () => {
    const day = [at("07:00", 40, true), at("12:10", 30), at("18:20", 36)];
    expect(nextOf(day, minutesOf("06:00"))?.at).toBe("12:10");
    expect(nextOf(day, minutesOf("12:20"))?.at).toBe("12:10");
    expect(nextOf(day, minutesOf("12:41"))?.at).toBe("18:20");
    expect(nextOf(day, minutesOf("19:00"))).toBeNull();
  });

  it("tell how long it is until then", () => {
    expect(untilThen(116)).toBe("in 1 h 56 min");
    expect(untilThen(120)).toBe("in 2 h");
    expect(untilThen(-4)).toBe("now");
  });
});
