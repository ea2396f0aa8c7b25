/** Effort as ink: one continuous run of tones from easy to all out. */

const INKS: [number, [number, number, number]][] = [
  [0.3, [184, 188, 200]],
  [0.5, [152, 159, 178]],
  [0.75, [110, 119, 146]],
  [1.0, [66, 77, 108]],
  [1.2, [40, 51, 82]],
  [1.35, [31, 42, 68]],
];

export function tone(demand: number): string {
  const above = INKS.find(([at]) => at >= demand) ?? INKS[INKS.length - 1];
  const below = INKS.findLast(([at]) => at <= demand) ?? INKS[0];
  if (!above || !below) return "rgb(31 42 68)";
  const share = above[0] === below[0] ? 0 : (demand - below[0]) / (above[0] - below[0]);
  const mixed = below[1].map((channel, index) => Math.round(channel + share * ((above[1][index] ?? 0) - channel)));
  return `rgb(${mixed.join(" ")})`;
}

export const FULL_HEIGHT = 1.85;
export const STAFF = [
  { at: 0.4, word: "easy" },
  { at: 0.8, word: "steady" },
  { at: 1.1, word: "hard" },
  { at: 1.7, word: "all out" },
];
