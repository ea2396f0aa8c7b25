import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { bandWord, targetAhead, targetAt } from "./band";
import { BluetoothStrap, measurementOf } from "./bluetooth";
import { SimulatedSensor, SimulatedStrap } from "./simulated";
import type { Source, State, Told } from "./source";
import { SILENT_MS, Watch } from "./watch";

const bytes = (...values: number[]) => new DataView(Uint8Array.from(values).buffer);

describe("a heart-rate measurement by the Bluetooth standard", () => {
  it("is one byte or two, the low one first", () => {
    expect(measurementOf(bytes(0x00, 172))).toEqual({ bpm: 172, contact: null });
    expect(measurementOf(bytes(0x01, 0x04, 0x01)).bpm).toBe(260);
  });

  it("may say whether the strap touches the skin", () => {
    expect(measurementOf(bytes(0x06, 120)).contact).toBe(true);
    expect(measurementOf(bytes(0x04, 0)).contact).toBe(false);
  });
});

/** The browser's Bluetooth with one strap in reach. */
function fakeBluetooth() {
  const characteristic = Object.assign(new EventTarget(), {
    value: null as DataView | null,
    startNotifications: vi.fn(async () => {}),
  });
  const connect = vi.fn(async () => ({
    getPrimaryService: async (name: string) => {
      expect(name).toBe("heart_rate");
      return { getCharacteristic: async () => characteristic };
    },
  }));
  const device = Object.assign(new EventTarget(), { gatt: { connect, disconnect: vi.fn() } });
  const requestDevice = vi.fn(async () => device);
  return {
    bluetooth: { requestDevice } as unknown as Bluetooth,
    connect,
    requestDevice,
    device,
    beat: (...values: number[]) => {
      characteristic.value = bytes(...values);
      characteristic.dispatchEvent(new Event("characteristicvaluechanged"));
    },
    cut: () => device.dispatchEvent(new Event("gattserverdisconnected")),
  };
}

function ear() {
  const heard: number[] = [];
  const states: State[] = [];
  let strikes = 0;
  const told: Told = {
    heart: (bpm) => heard.push(bpm),
    strike: () => {
      strikes += 1;
    },
    state: (state) => {
      if (states.at(-1) !== state) states.push(state);
    },
  };
  return { heard, states, told, count: () => strikes };
}

describe("a strap by Bluetooth", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("asks for a heart-rate strap and tells what it measures", async () => {
    const { bluetooth, requestDevice, beat } = fakeBluetooth();
    const { heard, states, told } = ear();
    await new BluetoothStrap(bluetooth).start(told);
    expect(requestDevice).toHaveBeenCalledWith({ filters: [{ services: ["heart_rate"] }] });
    beat(0x06, 141);
    beat(0x06, 142);
    expect(heard).toEqual([141, 142]);
    expect(states).toEqual(["looking", "on"]);
  });

  it("that is cut off says so, and is found again by itself", async () => {
    const { bluetooth, connect, cut, beat, requestDevice } = fakeBluetooth();
    const { states, told } = ear();
    await new BluetoothStrap(bluetooth).start(told);
    beat(0x00, 150);
    connect.mockRejectedValueOnce(new Error("out of reach"));
    cut();
    await vi.advanceTimersByTimeAsync(2000);
    beat(0x00, 151);
    expect(states).toEqual(["looking", "on", "lost", "on"]);
    expect(requestDevice).toHaveBeenCalledTimes(1);
  });

  it("off the skin is lost, and never a zero", async () => {
    const { bluetooth, beat } = fakeBluetooth();
    const { heard, states, told } = ear();
    await new BluetoothStrap(bluetooth).start(told);
    beat(0x04, 0);
    beat(0x00, 0);
    expect(heard).toEqual([]);
    expect(states.at(-1)).toBe("lost");
  });

  it("that was taken off is not looked for any more", async () => {
    const { bluetooth, connect, cut } = fakeBluetooth();
    const strap = new BluetoothStrap(bluetooth);
    await strap.start(ear().told);
    strap.stop();
    cut();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(connect).toHaveBeenCalledTimes(1);
  });

  it("that nobody picked raises what the browser says", async () => {
    const { bluetooth, requestDevice } = fakeBluetooth();
    requestDevice.mockRejectedValueOnce(new Error("User cancelled"));
    await expect(new BluetoothStrap(bluetooth).start(ear().told)).rejects.toThrow("User cancelled");
  });
});

describe("simulated devices", () => {
  let at = 0;
  beforeEach(() => {
    vi.useFakeTimers();
    at = 0;
  });
  afterEach(() => void vi.useRealTimers());
  const play = (seconds: number, step_s: number) => {
    for (let passed = 0; passed < seconds; passed += step_s) {
      at += step_s;
      vi.advanceTimersByTime(1000 * step_s);
    }
  };

  it("the strap wakes late, loses the heart and finds it again, and never tells a zero", async () => {
    const { heard, states, told } = ear();
    await new SimulatedStrap([null, null, 90, 92, null, null, 99], () => at).start(told);
    play(6, 1);
    expect(heard).toEqual([90, 92, 99]);
    expect(states).toEqual(["looking", "on", "lost", "on"]);
  });

  it("the sensor tells each strike once, and none where the clock was moved", async () => {
    const { told, count } = ear();
    await new SimulatedSensor([0.5, 1.5, 2.5, 30, 31], () => at).start(told);
    play(3, 0.1);
    expect(count()).toBe(3);
    at = 60;
    play(1, 0.1);
    expect(count()).toBe(3);
  });
});

describe("what is watched", () => {
  const strapped = () => {
    let told: Told | undefined;
    const source: Source = {
      start: async (ear) => {
        told = ear;
      },
      stop: vi.fn(),
    };
    return { source, tell: () => told as Told };
  };
  const watching = (at_s: () => number | null = () => 12.34) => {
    let now = 0;
    const strap = vi.fn();
    const strike = vi.fn();
    const keep = vi.fn();
    const watch = new Watch(at_s, { strike, strap, changed: () => {}, keep }, () => now);
    const pass = (ms: number) => {
      now += ms;
    };
    return { watch, strap, strike, keep, pass };
  };

  it("is kept with the second of the session, of two people apart", async () => {
    const { watch, keep } = watching();
    const [first, second] = [strapped(), strapped()];
    await watch.strap(0, first.source);
    await watch.strap(1, second.source);
    first.tell().heart?.(150);
    second.tell().heart?.(120);
    watch.write();
    expect(keep.mock.calls).toEqual([
      [0, { heart: [[12.3, 150]], strikes: [] }],
      [1, { heart: [[12.3, 120]], strikes: [] }],
    ]);
    watch.write();
    expect(keep).toHaveBeenCalledTimes(2);
  });

  it("is handed to whoever can still take it as the page goes away, and to nobody else", async () => {
    const { watch, keep } = watching();
    const { source, tell } = strapped();
    await watch.sensor(0, source);
    tell().strike?.();
    const last = vi.fn();
    watch.write(last);
    watch.write();
    expect(last.mock.calls).toEqual([[0, { heart: [], strikes: [12.34] }]]);
    expect(keep).not.toHaveBeenCalled();
  });

  it("counts on from what had been noticed before the page was loaded anew", async () => {
    const { watch } = watching();
    const { source, tell } = strapped();
    watch.remember(0, 41);
    await watch.sensor(0, source);
    tell().strike?.();
    expect([watch.strikes(0), watch.strikes(1)]).toEqual([42, 0]);
  });

  it("is shown and not kept while the clock is held", async () => {
    const { watch, keep } = watching(() => null);
    const { source, tell } = strapped();
    await watch.strap(0, source);
    tell().heart?.(133);
    watch.write();
    expect(watch.heart(0)?.bpm).toBe(133);
    expect(keep).not.toHaveBeenCalled();
  });

  it("is lost when it is silent for too long, with its last value", async () => {
    const { watch, strap, pass } = watching();
    const { source, tell } = strapped();
    await watch.strap(0, source);
    tell().heart?.(171);
    pass(SILENT_MS + 1);
    watch.look();
    expect(watch.heart(0)).toMatchObject({ state: "lost", bpm: 171 });
    expect(strap.mock.calls.map(([, state]) => state)).toEqual(["on", "lost"]);
    tell().heart?.(168);
    expect(watch.heart(0)?.state).toBe("on");
  });

  it("is lost from the first where a strap is worn that is still to be found, and on as soon as it is", async () => {
    const { watch } = watching();
    watch.expect(0);
    expect(watch.heart(0)).toMatchObject({ bpm: null, state: "lost" });
    const { source, tell } = strapped();
    await watch.strap(0, source);
    tell().heart?.(99);
    expect(watch.heart(0)).toMatchObject({ bpm: 99, state: "on" });
  });

  it("counts strikes of whoever struck", async () => {
    const { watch, strike } = watching();
    const { source, tell } = strapped();
    await watch.sensor(1, source);
    tell().strike?.();
    tell().strike?.();
    expect([watch.strikes(0), watch.strikes(1)]).toEqual([0, 2]);
    expect(strike).toHaveBeenCalledWith(1);
  });

  it("takes off the strap that another one replaces", async () => {
    const { watch } = watching();
    const [first, second] = [strapped(), strapped()];
    await watch.strap(0, first.source);
    await watch.strap(0, second.source);
    expect(first.source.stop).toHaveBeenCalled();
    watch.takeOff(0);
    expect(watch.heart(0)).toBeNull();
  });
});

describe("the heart against its band", () => {
  const target = { start_s: 10, end_s: 20, low_bpm: 140, high_bpm: 160 };

  it("is under, in band or over for whoever works, and easy for whoever rests below it", () => {
    expect([139, 140, 160, 161].map((bpm) => bandWord(bpm, false, target, true))).toEqual([
      "under",
      "in band",
      "in band",
      "over",
    ]);
    expect(bandWord(120, false, target, false)).toBe("easy");
  });

  it("is lost with the strap, and has no word without a band", () => {
    expect(bandWord(150, true, target, true)).toBe("lost");
    expect(bandWord(150, false, null, true)).toBe("");
    expect(bandWord(null, false, target, true)).toBe("");
  });

  it("is that of the moment", () => {
    expect(targetAt([target], 10)).toBe(target);
    expect(targetAt([target], 20)).toBeNull();
    const next = { ...target, start_s: 40, end_s: 50 };
    expect([0, 12, 30, 60].map((at) => targetAhead([target, next], at))).toEqual([target, target, next, next]);
  });
});
