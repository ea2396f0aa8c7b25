import type { Schemas } from "../../api/client";

/** One stave under the score: what it shows, and how. */
export interface Lane {
  id: string;
  name: string;
  unit: string;
  hue: string;
  shape: "triangle" | "diamond" | "disc" | "beat";
  values: number[];
  /** The soft band: the 80 % range of the values. */
  band: Schemas["Band"] | null;
  /** Stretches in which the values are asked to lie. */
  wanted: { start_s: number; end_s: number; low: number; high: number }[];
  low: number;
  high: number;
  reference?: number;
  show: (value: number) => string;
}

export function lanesOf(reading: Schemas["Evaluation"]["reading"]): Lane[] {
  if (!reading) return [];
  const percent = (value: number) => `${Math.round(100 * value)} %`;
  const { traces, bands } = reading;
  const lanes: Lane[] = [
    {
      id: "sprint",
      name: "Sprint",
      unit: "store, %",
      hue: "var(--sprint)",
      shape: "triangle",
      values: traces.sprint_left,
      band: bands?.sprint_left ?? null,
      wanted: [],
      low: 0,
      high: 1,
      show: percent,
    },
    {
      id: "lactic",
      name: "Lactic",
      unit: "store, %",
      hue: "var(--lactic)",
      shape: "diamond",
      values: traces.lactic_left,
      band: bands?.lactic_left ?? null,
      wanted: [],
      low: 0,
      high: 1,
      reference: 0.6,
      show: percent,
    },
    {
      id: "aerobic",
      name: "Aerobic",
      unit: "% of max",
      hue: "var(--aerobic)",
      shape: "disc",
      values: traces.uptake_frac,
      band: bands?.uptake_frac ?? null,
      wanted: [],
      low: 0,
      high: 1,
      reference: 0.9,
      show: percent,
    },
  ];
  if (traces.heart_rate_bpm) {
    lanes.push({
      id: "heart",
      name: "Heart",
      unit: "rate, bpm",
      hue: "var(--ink)",
      shape: "beat",
      values: traces.heart_rate_bpm,
      band: bands?.heart_rate_bpm ?? null,
      wanted: reading.heart_targets.map((each) => ({ ...each, low: each.low_bpm, high: each.high_bpm })),
      low: reading.hr_rest_bpm - 10,
      high: reading.hr_max_bpm,
      show: (value) => String(Math.round(value)),
    });
  }
  return lanes;
}
