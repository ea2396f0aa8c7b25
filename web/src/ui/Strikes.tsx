import type { Schemas } from "../api/client";
import { WhoSays } from "./WhoSays";

type Volume = Schemas["VolumeAnswer"];

export const LIMBS = ["left hand", "right hand", "left leg", "right leg"] as const;
const HEIGHTS = ["head", "body", "leg"] as const;

/** Where the strikes land and which are exact, in words. */
export function inWords(volume: Volume, workSeconds: number): string {
  const said = HEIGHTS.filter((height) => volume.heights[height]).map(
    (height) => `${Math.round(volume.heights[height] ?? 0)} to the ${height}`,
  );
  if (volume.open) said.push(`${Math.round(volume.open)} left open, shared over two hands`);
  if (volume.counted) said.push(`${Math.round(volume.counted)} counted exactly`);
  if (volume.left_share !== null) said.push(`${Math.round(100 * volume.left_share)} % left`);
  if (workSeconds) said.push(`${Math.round((60 * volume.strikes) / workSeconds)} a minute of work`);
  if (volume.defences) said.push(`${Math.round(volume.defences)} defences`);
  return said.join(", ");
}

interface Props {
  volume: Volume;
  week: Record<string, number>;
  workSeconds: number;
  /** Whether there is a person whose week counts. */
  somebody: boolean;
}

/** Strikes expected by limb, of this session and with the last seven days. */
export function Strikes({ volume, week, workSeconds, somebody }: Props) {
  if (!volume.strikes) return null;
  const shown = LIMBS.filter((limb) => volume.limbs[limb] || week[limb]);
  return (
    <>
      <table className="mt-3 w-full text-[13px] leading-[17px]">
        <caption className="label-text pb-1 text-left">
          <WhoSays id="limbs">Strikes expected, by limb</WhoSays>
        </caption>
        <thead>
          <tr className="quiet text-[12px]">
            <th className="text-left font-normal">Limb</th>
            <th className="text-right font-normal">Session</th>
            {somebody && <th className="text-right font-normal">With the last 7 days</th>}
          </tr>
        </thead>
        <tbody>
          {shown.map((limb) => (
            <tr key={limb} className="rule-t">
              <th className="py-[2px] text-left font-normal first-letter:uppercase">{limb}</th>
              <td className="text-right font-semibold">{Math.round(volume.limbs[limb] ?? 0)}</td>
              {somebody && <td className="text-right">{Math.round((volume.limbs[limb] ?? 0) + (week[limb] ?? 0))}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet pt-1 text-[12px] leading-[16px]">{inWords(volume, workSeconds)}</p>
    </>
  );
}
