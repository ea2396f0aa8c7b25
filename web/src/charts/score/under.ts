import type { Schemas } from "../../api/client";
import { clock } from "../../domain/time";

/** The interval under the cursor in words: when, which round, what, and the strikes of it by limb. */
export function under(interval: Schemas["TimelineInterval"], at: number, words: (tempo: string) => string): string {
  const rounds = interval.rounds.filter((round) => round.of > 1).map((round) => `${round.turn} of ${round.of}`);
  const said = [clock(at)];
  if (rounds.length) said.push(`round ${rounds.join(", ")}`);
  const about = interval.open_ended ? "open, about " : "";
  const dose = interval.reps ? `${interval.reps} reps` : about + clock(interval.seconds);
  const what = interval.partner ? "rest, the partner works" : words(interval.tempo);
  said.push(`${what} ${dose}${interval.modality ? `, ${interval.modality.replaceAll("-", " ")}` : ""}`);
  if (interval.calls.length) said.push(interval.calls.join(", "));
  if (interval.strikes >= 0.5) {
    const limbs = Object.entries(interval.limbs).map(([limb, count]) => `${limb} ${Math.round(count)}`);
    said.push(`about ${Math.round(interval.strikes)} strikes: ${limbs.join(", ")}`);
  }
  return said.join(" · ");
}
