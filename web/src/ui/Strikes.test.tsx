// @vitest-environment jsdom

import { describe, expect, it } from "vitest";
import { makePlace } from "../testing/mount";
import { inWords, Strikes } from "./Strikes";

const { show } = makePlace();
const volume = {
  limbs: { "left hand": 300, "right hand": 100 },
  heights: { head: 350, body: 50 },
  strikes: 400,
  left_share: 0.75,
  counted: 400,
  open: 0,
  defences: 12,
  steps: 0,
};

describe("the strikes of a session", () => {
  it("stand by limb, with the last seven days where somebody's week counts", () => {
    const rows = (somebody: boolean) =>
      [
        ...show(
          <Strikes volume={volume} week={{ "left hand": 50 }} workSeconds={120} somebody={somebody} />,
        ).querySelectorAll("tbody tr"),
      ].map((row) => row.textContent);
    expect(rows(true)).toEqual(["left hand300350", "right hand100100"]);
    expect(rows(false)).toEqual(["left hand300", "right hand100"]);
  });

  it("say height, side, rate and what is exact", () => {
    expect(inWords(volume, 120)).toBe(
      "350 to the head, 50 to the body, 400 counted exactly, 75 % left, 200 a minute of work, 12 defences",
    );
  });

  it("have no side where nothing is struck", () => {
    const none = { limbs: {}, heights: {}, strikes: 0, left_share: null, counted: 0, open: 0, defences: 0, steps: 0 };
    expect(inWords(none, 0)).toBe("");
  });
});
