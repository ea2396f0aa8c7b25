import type { Schemas } from "../api/client";
import { WhoSays } from "./WhoSays";

/** A number with what it is under it, for a `dl`; where it is a figure of the method, it can be asked who says so. */
export function Figure({ value, name, id }: { value: string; name: string; id?: Schemas["FigureId"] }) {
  return (
    <div className="rule-t flex flex-col-reverse justify-end py-[3px]">
      <dt className="quiet text-[12px] leading-[16px]">{name}</dt>
      <dd className="text-[17px] leading-[21px] font-semibold">{id ? <WhoSays id={id}>{value}</WhoSays> : value}</dd>
    </div>
  );
}
