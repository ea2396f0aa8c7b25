import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { campFeeds } from "../../api/queries";
import { once } from "../../domain/once";
import { when } from "../../domain/time";
import { Address } from "../../ui/Address";
import { OutSheet } from "../../ui/SendOut";
import type { Camp } from "./plan";

/** Everything of a camp that can leave the hall: a calendar that follows it, files, paper. */
export function SendOutCamp({ camp, title, onClose }: { camp: Camp; title: string; onClose: () => void }) {
  const client = useQueryClient();
  const query = useQuery(campFeeds(camp.id));
  const refresh = () => askAnew(client, { queryKey: campFeeds(camp.id).queryKey });
  const make = useMutation({
    mutationFn: () =>
      once(["camp feed", camp.id, query.data?.length], (headers) =>
        need(api.POST("/api/camps/{camp_id}/feeds", { params: { path: { camp_id: camp.id } }, headers })),
      ),
    onSuccess: refresh,
  });
  const open = query.data?.filter((feed) => !feed.revoked) ?? [];
  const revoked = (query.data?.length ?? 0) - open.length;
  return (
    <OutSheet title={title} onClose={onClose}>
      <section aria-label="Calendar" className="rule-t mt-2 pt-3">
        <h3>A calendar that follows the camp</h3>
        <p className="quiet pb-2 text-[13px]">
          A secret address for any calendar program. It shows days and sessions, no name and nothing of anybody's
          health, and hears of every change. Whoever has it can read it, until it is taken back.
        </p>
        <button type="button" className="act main" disabled={make.isPending} onClick={() => make.mutate()}>
          {make.isPending ? "Making …" : "Make an address"}
        </button>
        {make.error && <p role="alert">{make.error.message}</p>}
        {query.error ? (
          <p role="alert">{query.error.message}</p>
        ) : !query.data ? (
          <p role="status" className="quiet">
            Looking for addresses …
          </p>
        ) : open.length === 0 ? (
          <p className="pt-2">No calendar follows this camp yet.</p>
        ) : (
          <ul>
            {open.map((feed) => (
              <Feed key={feed.id} campId={camp.id} feed={feed} onGone={refresh} />
            ))}
          </ul>
        )}
        {revoked > 0 && (
          <p className="quiet pt-2 text-[13px]">
            {revoked} {revoked === 1 ? "address was" : "addresses were"} taken back.
          </p>
        )}
      </section>
      <section aria-label="Files" className="rule-t mt-4 pt-3">
        <h3>Files and paper</h3>
        <p className="flex flex-wrap gap-2 pt-2">
          <a className="act" href={`/api/camps/${camp.id}/file?form=ics`} download>
            Calendar file
          </a>
          <a className="act" href={`/api/camps/${camp.id}/file?form=csv`} download>
            Table as CSV
          </a>
          <button
            type="button"
            className="act"
            onClick={() => {
              onClose();
              // The sheet is closed before the paper is laid out.
              setTimeout(() => window.print(), 50);
            }}
          >
            Print
          </button>
        </p>
      </section>
    </OutSheet>
  );
}

function Feed({ campId, feed, onGone }: { campId: number; feed: Schemas["FeedOut"]; onGone: () => void }) {
  const takeBack = useMutation({
    mutationFn: () =>
      need(
        api.DELETE("/api/camps/{camp_id}/feeds/{feed_id}", { params: { path: { camp_id: campId, feed_id: feed.id } } }),
      ),
    onSuccess: onGone,
  });
  const made = when(feed.made_at);
  return (
    <li className="rule-t mt-3 pt-2">
      <p className="quiet text-[13px]">Made {made}</p>
      <Address label={`Address of the calendar made ${made}`} address={feed.address} takingBack={takeBack} />
    </li>
  );
}
