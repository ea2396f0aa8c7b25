/** A number with what it is under it, for a `dl`. */
export function Figure({ value, name }: { value: string; name: string }) {
  return (
    <div className="rule-t flex flex-col-reverse justify-end py-[3px]">
      <dt className="quiet text-[12px] leading-[16px]">{name}</dt>
      <dd className="text-[17px] leading-[21px] font-semibold">{value}</dd>
    </div>
  );
}
