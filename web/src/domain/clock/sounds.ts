/** Our own bell and clappers, synthesised: samples between -1 and 1. */

export type CueKind = "bell" | "change" | "clack" | "count" | "end" | "pulse";

/** Partials of a small ring bell: ratio to the strike note, loudness, decay [1/s]. */
const BELL: [number, number, number][] = [
  [0.5, 0.25, 1.2],
  [1, 0.5, 1.8],
  [1.19, 0.28, 2.6],
  [1.5, 0.2, 3.2],
  [2, 0.42, 3.6],
  [2.74, 0.2, 6],
  [3.76, 0.12, 9],
];
const STRIKE_HZ = 880;

function bell(rate: number, strikes: number): Float32Array<ArrayBuffer> {
  const every_s = 0.32;
  const samples = new Float32Array(Math.round(rate * (1.6 + every_s * (strikes - 1))));
  for (let strike = 0; strike < strikes; strike++) {
    const start = Math.round(strike * every_s * rate);
    for (let index = start; index < samples.length; index++) {
      const t = (index - start) / rate;
      let value = 0;
      for (const [ratio, loudness, decay] of BELL) {
        value += loudness * Math.sin(2 * Math.PI * STRIKE_HZ * ratio * t) * Math.exp(-decay * t);
      }
      samples[index] = (samples[index] ?? 0) + value * Math.min(1, t / 0.002);
    }
  }
  return level(samples);
}

/** Two wooden blocks struck together: short, bright and dry. */
function clack(rate: number, strikes: number): Float32Array<ArrayBuffer> {
  const every_s = 0.13;
  const samples = new Float32Array(Math.round(rate * (0.12 + every_s * (strikes - 1))));
  for (let strike = 0; strike < strikes; strike++) {
    const start = Math.round(strike * every_s * rate);
    for (let index = start; index < Math.min(samples.length, start + rate * 0.1); index++) {
      const t = (index - start) / rate;
      const wood =
        Math.sin(2 * Math.PI * 1150 * t) +
        0.7 * Math.sin(2 * Math.PI * 1870 * t) +
        0.4 * Math.sin(2 * Math.PI * 3020 * t);
      samples[index] = (samples[index] ?? 0) + wood * Math.exp(-55 * t) * Math.min(1, t / 0.001);
    }
  }
  return level(samples);
}

function tone(rate: number, hertz: number, length_s: number): Float32Array<ArrayBuffer> {
  const samples = new Float32Array(Math.round(rate * length_s));
  for (let index = 0; index < samples.length; index++) {
    const t = index / rate;
    const edge = Math.min(1, t / 0.004, (length_s - t) / 0.01);
    samples[index] = 0.7 * Math.sin(2 * Math.PI * hertz * t) * edge;
  }
  return samples;
}

function level(samples: Float32Array<ArrayBuffer>): Float32Array<ArrayBuffer> {
  const peak = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0) || 1;
  return samples.map((value) => (0.95 * value) / peak);
}

export function soundOf(kind: CueKind, rate: number): Float32Array<ArrayBuffer> {
  switch (kind) {
    case "bell":
      return bell(rate, 1);
    case "end":
      return bell(rate, 3);
    case "change":
      return clack(rate, 2);
    case "clack":
      return clack(rate, 3);
    case "count":
      return tone(rate, 740, 0.12);
    case "pulse":
      return tone(rate, 1480, 0.03);
  }
}
