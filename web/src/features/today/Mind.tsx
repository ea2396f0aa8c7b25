import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { mindToday } from "../../api/queries";

const SHOWN = 5;

/** What to mind of the people who come and of the day itself, each with its cure. */
export function Mind({ on }: { on: string }) {
  const [heat, setHeat] = useState("");
  const [all, setAll] = useState(false);
  const wbgt = /^-?\d{1,2}([.,]\d)?$/.test(heat.trim()) ? Number(heat.replace(",", ".")) : null;
  const query = useQuery(mindToday(on, wbgt));
  const found = query.data ?? [];
  const shown = all ? found : found.slice(0, SHOWN);
  return (
    <section aria-label="Mind today">
      <h2>Mind today</h2>
      {!query.data && (
        <p role="status" className="quiet py-2">
          {query.error?.message ?? "Looking through the day …"}
        </p>
      )}
      {query.data && found.length === 0 && <p className="quiet py-2">Nothing speaks. Your own eyes still do.</p>}
      <ul>
        {shown.map((each) => (
          <li
            key={`${each.person_id} ${each.seal}`}
            className="grid grid-cols-[76px_1fr] gap-x-2 py-[5px] text-[13px] leading-[17px]"
          >
            <span>
              <span className={`seal ${each.severity === "note" ? "light" : ""}`}>{each.seal}</span>
            </span>
            <span>
              {each.person_id === null ? (
                <b>{each.name}</b>
              ) : (
                <Link className="font-semibold hover:underline" to={`/roster/${each.person_id}`}>
                  {each.name}
                </Link>
              )}
              , {each.session}. {each.text} <span className="quiet">{each.cure}</span>
            </span>
          </li>
        ))}
      </ul>
      {found.length > SHOWN && (
        <button type="button" className="link min-h-[30px] text-[13px]" onClick={() => setAll(!all)}>
          {all ? "Fewer" : `${found.length - SHOWN} more`}
        </button>
      )}
      <label className="label-text flex items-center gap-2 pt-2">
        Heat in the hall, °C WBGT
        <input
          className="field w-[84px]"
          inputMode="decimal"
          placeholder="none"
          value={heat}
          onChange={(event) => setHeat(event.target.value)}
        />
      </label>
    </section>
  );
}
