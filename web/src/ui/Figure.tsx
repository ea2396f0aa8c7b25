import type { Schemas } from "../api/client";
import { WhoSays } from "./WhoSays";

interface Props {
  value: string;
  name: string;
  id?: Schemas["FigureId"];
  /** Its value may come to take a second line: there is room for it from the start. */
  words?: boolean;
}

/** A number with what it is under it, for a `dl`; where it is a figure of the method, it can be asked who says so. */
export function Figure({ value, name, id, words }: Props) {
  return (
    <div className={`rule-t flex flex-col-reverse justify-end py-[3px] ${words ? "min-h-[65px]" : ""}`}>
      <dt className="quiet text-[12px] leading-[16px]">{name}</dt>
      <dd className="text-[17px] leading-[21px] font-semibold">{id ? <WhoSays id={id}>{value}</WhoSays> : value}</dd>
    </div>
  );
}
