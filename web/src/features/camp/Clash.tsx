import type { Schemas } from "../../api/client";
import { Sheet } from "../../ui/Sheet";

type ClashOut = Schemas["ClashOut"];

interface Props {
  clash: ClashOut[];
  onSoften: (rule: string) => void;
  onClose: () => void;
}

/** Nothing fits: the smallest set of rules that cannot be kept together, and which a coach can give way on. */
export function Clash({ clash, onSoften, onClose }: Props) {
  return (
    <Sheet label="Nothing fits" className="w-[min(640px,calc(100vw-16px))]" onClose={onClose}>
      <h2>Nothing fits</h2>
      <p className="pt-1">
        These cannot be kept together; without any one of them the others can. Change what is fixed or chosen, or give
        way on one. The plan that was there stays as it is.
      </p>
      <ul className="pt-2">
        {clash.map((each) => (
          <li key={each.rule} className="rule-t grid gap-2 py-2 min-[480px]:grid-cols-[80px_1fr_auto]">
            <span>
              <span className="seal">{each.name}</span>
            </span>
            <span className="text-[14px] leading-[18px]">
              {each.sentence}
              {each.said.map((said) => (
                <span key={said} className="block">
                  {said.replace(/^./, (first) => first.toUpperCase())}.
                </span>
              ))}
              {each.may_give && !each.then_fits && (
                <span className="quiet block text-[13px]">Giving way on this alone is not enough.</span>
              )}
              {!each.may_give && <span className="quiet block text-[13px]">Nobody gives way on this here.</span>}
            </span>
            {each.may_give && (
              <button
                type="button"
                className={`act ${each.then_fits ? "main" : ""}`}
                onClick={() => onSoften(each.rule)}
              >
                Give way
              </button>
            )}
          </li>
        ))}
      </ul>
      <p className="pt-3">
        <button type="button" className="act" onClick={onClose}>
          Close
        </button>
      </p>
    </Sheet>
  );
}
