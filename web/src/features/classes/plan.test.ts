import { describe, expect, it } from "vitest";
import {
  type Answer,
  type Asked,
  apart,
  between,
  guest,
  isOff,
  kindOf,
  letGo,
  ofSize,
  paired,
  partnerOf,
  put,
  shuffled,
  spread,
  stationsOf,
  swapped,
  withComer,
  without,
} from "./plan";

const someone = (uid: string, person_id: number | null = null) => ({ uid, person_id, name: uid, easy: false });
const asked = {
  people: [someone("abel", 1), someone("bea", 2), someone("guest-3"), someone("guest-4")],
  together: [],
  put: [],
} as unknown as Asked;
const uids = (one: Asked) => one.people.map((each) => each.uid);

describe("what is asked of a class", () => {
  it("puts somebody at one place in a wave, and lets go of one wave or of all", () => {
    const twice = put(put(asked, "abel", 2, "bag 1"), "abel", 2, "floor");
    expect(twice.put).toEqual([{ uid: "abel", wave: 2, at: "floor" }]);
    const more = put(put(twice, "abel", 3, "bag 1"), "bea", 2, "bag 2");
    expect(letGo(more, "abel", 2).put).toHaveLength(2);
    expect(letGo(more, "abel").put).toEqual([{ uid: "bea", wave: 2, at: "bag 2" }]);
  });

  it("swaps two by putting each where the other was", () => {
    const rows = [["bag 1"], ["floor"], ["bag 2"], ["bag 3"]];
    expect(swapped(asked, rows, 0, 1, 1).put).toEqual([
      { uid: "abel", wave: 1, at: "floor" },
      { uid: "bea", wave: 1, at: "bag 1" },
    ]);
    expect(swapped(asked, rows, 0, 9, 1)).toBe(asked);
  });

  it("puts nobody where they are not there any more", () => {
    const there = put(put(put(asked, "abel", 1, "floor"), "abel", 4, "floor"), "bea", 1, "bag 1");
    expect(withComer(there, "abel", { from_wave: 3 }).put?.map((each) => [each.uid, each.wave])).toEqual([
      ["abel", 4],
      ["bea", 1],
    ]);
    expect(withComer(there, "abel", { absent_after: 2 }).put).toHaveLength(2);
    expect(withComer(there, "abel", { absent_after: 0 }).put?.map((each) => each.uid)).toEqual(["bea"]);
  });

  it("gives nobody two partners, and parts who leaves", () => {
    const pairs = paired(paired(asked, "abel", "bea"), "bea", "guest-3");
    expect(pairs.together).toEqual([{ one: "bea", other: "guest-3" }]);
    expect(partnerOf(pairs, "guest-3")).toBe("bea");
    expect(partnerOf(pairs, "abel")).toBeUndefined();
    expect(apart(pairs, "bea").together).toEqual([]);
    expect(without(pairs, "guest-3").together).toEqual([]);
  });

  it("makes up a number with guests and takes them first, never the last one", () => {
    expect(uids(ofSize(asked, 6))).toEqual(["abel", "bea", "guest-3", "guest-4", "guest-5", "guest-6"]);
    expect(uids(ofSize(asked, 3))).toEqual(["abel", "bea", "guest-3"]);
    expect(uids(ofSize(asked, 1))).toEqual(["abel"]);
    expect(uids(ofSize(asked, 0))).toEqual(["abel"]);
    const gap = without(asked, "abel");
    expect(uids({ ...gap, people: [...gap.people, guest(gap)] })).toEqual(["bea", "guest-3", "guest-4", "guest-5"]);
  });

  it("shuffles the same people into another order, the same for the same number, and lets go of all", () => {
    const there = put(asked, "abel", 1, "floor");
    const [one, same, other] = [shuffled(there, 1), shuffled(there, 1), shuffled(there, 2)];
    expect(uids(one)).toEqual(uids(same));
    expect(uids(one).toSorted()).toEqual(uids(asked).toSorted());
    expect([uids(one), uids(other)].some((order) => order.join() !== uids(asked).join())).toBe(true);
    expect(one.put).toEqual([]);
  });
});

describe("stations", () => {
  it("are of a kind, and stand bags first, by number", () => {
    expect(["bag 3", "pads 1 hit", "high knees", "wait"].map(kindOf)).toEqual(["bag", "pads", "high knees", "wait"]);
    expect(["floor", "squats", "bag", "pads", "coach", "wait", "away"].filter(isOff)).toEqual(["floor", "squats"]);
    const rows = [
      ["floor", "bag 10", "away"],
      ["bag 2", "pads 1 hold", "wait"],
      ["coach", "pads 1 hit", "floor"],
    ];
    expect(stationsOf({ rows } as unknown as Answer)).toEqual([
      "bag 2",
      "bag 10",
      "coach",
      "pads 1 hit",
      "pads 1 hold",
      "floor",
    ]);
  });
});

describe("figures of all", () => {
  it("are told from the least to the most, and once where they are the same", () => {
    expect(spread([60, 90])).toBe("1:00 to 1:30");
    expect(spread([60, 60])).toBe("1:00");
    expect(between([99.6, 100.2])).toBe("100");
    expect(between([90, 1200])).toBe("90 to 1,200");
  });
});
