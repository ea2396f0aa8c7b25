import { describe, expect, it } from "vitest";
import { Steady } from "./steady";

/** Two clocks that the test moves: one goes on evenly and stands in a sleep, the other is the device's own time. */
function clocks() {
  const at = { even: 5_000_000, wall: 5_000_000 };
  const steady = new Steady(
    () => at.even,
    () => at.wall,
  );
  return {
    steady,
    pass: (ms: number) => {
      at.even += ms;
      at.wall += ms;
    },
    sleep: (ms: number) => {
      at.wall += ms;
    },
    set: (ms: number) => {
      at.wall += ms;
    },
  };
}

describe("the page's clock", () => {
  it("does not follow the device's time when that is put back, slept or not", () => {
    const { steady, pass, set } = clocks();
    pass(10_000);
    set(-3_600_000);
    expect(steady.look(true)).toBe(true);
    expect(steady.now()).toBe(5_010_000);
    expect(steady.ahead_ms).toBe(-3_600_000);
  });

  it("does not follow it forwards either while the screen was kept awake", () => {
    const { steady, set } = clocks();
    set(3_600_000);
    steady.look(false);
    expect(steady.now()).toBe(5_000_000);
  });

  it("is right at once after a sleep", () => {
    const { steady, pass, sleep } = clocks();
    pass(2000);
    sleep(90_000);
    steady.look(true);
    expect(steady.now()).toBe(5_092_000);
    pass(1000);
    expect(steady.look(true)).toBe(false);
    expect(steady.now()).toBe(5_093_000);
  });

  it("leaves small corrections of the device's time alone", () => {
    const { steady, set } = clocks();
    set(400);
    expect(steady.look(true)).toBe(false);
    expect(steady.now()).toBe(5_000_000);
  });

  it("tells a sleep from a change of time that came one after the other", () => {
    const { steady, sleep, set } = clocks();
    sleep(60_000);
    steady.look(true);
    set(-7_200_000);
    steady.look(true);
    expect(steady.now()).toBe(5_060_000);
  });
});
