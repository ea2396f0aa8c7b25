import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import Bowser from "bowser";
import { askAnew } from "../../api/askAnew";
import { door } from "../../api/door";
import { when } from "../../domain/time";
import { Part } from "./Part";

interface UserSession {
  id: number;
  user_agent: string;
  ip: string;
  created_at: number;
  is_current: boolean;
}
const KEY = ["account", "sessions"];

/** A browser by its name and its machine's. */
function browser(agent: string): string {
  const parsed = Bowser.parse(agent || "unknown");
  return [parsed.browser.name ?? "A browser", parsed.os.name].filter(Boolean).join(" on ");
}

/** Where somebody is signed in, and the way out of everywhere else. */
export function SignedIn() {
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEY, queryFn: () => door<UserSession[]>("GET", "auth/sessions"), staleTime: 0 });
  const end = useMutation({
    mutationFn: (ids: number[]) => door("DELETE", "auth/sessions", { body: { sessions: ids } }),
    onSuccess: () => askAnew(client, { queryKey: KEY }),
  });
  const sessions = query.data?.data ?? [];
  const others = sessions.filter((each) => !each.is_current).map(({ id }) => id);
  return (
    <Part title="Signed in" fault={(end.error ?? query.error)?.message}>
      <ul>
        {sessions.map((each) => (
          <li key={each.id} className="rule-t flex flex-wrap items-center gap-3 py-2">
            <span className="flex-1">
              {browser(each.user_agent)} {each.is_current && <b>here</b>}
              <span className="quiet block text-[13px]">
                {each.ip}, since {when(new Date(1000 * each.created_at).toISOString())}
              </span>
            </span>
            {!each.is_current && (
              <button
                type="button"
                className="act"
                aria-label={`Sign out: ${browser(each.user_agent)}`}
                disabled={end.isPending}
                onClick={() => end.mutate([each.id])}
              >
                Sign out
              </button>
            )}
          </li>
        ))}
      </ul>
      {others.length > 0 && (
        <p className="pt-2">
          <button type="button" className="act" disabled={end.isPending} onClick={() => end.mutate(others)}>
            Sign out everywhere else
          </button>
        </p>
      )}
    </Part>
  );
}
