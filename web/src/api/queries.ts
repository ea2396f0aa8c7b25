import {
  infiniteQueryOptions,
  keepPreviousData,
  MutationCache,
  notifyManager,
  QueryCache,
  QueryClient,
  queryOptions,
} from "@tanstack/react-query";
import { askAnew } from "./askAnew";
import { api, need, Refused, type Schemas, Unreachable } from "./client";
import { drawn } from "./drawn";
import { hashed } from "./hashed";

const RETRY_MS = 2000;
const LONGEST_RETRY_MS = 20_000;
/** Soon at first, then ever more seldom. */
const retryDelay = (count: number): number => Math.min(LONGEST_RETRY_MS, RETRY_MS * 1.5 ** Math.max(0, count - 3));

/** Lost connections are tried again for as long as it takes; refusals are not. */
export const retryWhileAway = (_count: number, error: Error): boolean => error instanceof Unreachable;

// At once: a timer in between is a frame later on a busy page.
notifyManager.setScheduler(queueMicrotask);

export function makeQueryClient(): QueryClient {
  const patient = { retry: retryWhileAway, retryDelay, networkMode: "always" as const };
  // Whoever was signed out elsewhere stands at the door again; a clock that runs is not taken away.
  const onError = (error: Error) => {
    const over = error instanceof Refused && error.status === 401;
    if (over && !window.location.pathname.startsWith("/floor/")) void askAnew(client, me);
  };
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({ onError }),
    mutationCache: new MutationCache({ onError }),
    defaultOptions: {
      queries: { ...patient, staleTime: 30_000, refetchOnWindowFocus: false, queryKeyHashFn: hashed },
      mutations: patient,
    },
  });
  return client;
}

const PAGE = 200;

interface Page<T> {
  items: T[];
  count: number;
}

/** All of a list that the server gives a page at a time: the first says how many follow, and those are asked together. */
async function all<T>(
  page: (query: { limit: number; offset: number }) => Promise<Page<T>>,
  early?: (first: T[]) => void,
): Promise<T[]> {
  const first = await page({ limit: PAGE, offset: 0 });
  early?.(first.items);
  const offsets = Array.from({ length: Math.ceil(first.count / PAGE) }, (_, index) => index * PAGE).slice(1);
  const rest = await Promise.all(offsets.map((offset) => page({ limit: PAGE, offset })));
  return [...first.items, ...rest.flatMap(({ items }) => items)];
}

export const me = queryOptions({ queryKey: ["me"], queryFn: () => need(api.GET("/api/me")) });

export const vocabulary = queryOptions({
  queryKey: ["vocabulary"],
  queryFn: () => need(api.GET("/api/vocabulary")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const people = queryOptions({
  queryKey: ["people"],
  queryFn: () => all((query) => need(api.GET("/api/people", { params: { query } }))),
});
/** Those who are archived. */
export const archived = queryOptions({
  queryKey: ["people", "archived"],
  queryFn: () => all((query) => need(api.GET("/api/people", { params: { query: { ...query, archived: true } } }))),
});
export const personPage = (id: number) =>
  queryOptions({
    queryKey: ["person", id],
    queryFn: () => need(api.GET("/api/people/{person_id}", { params: { path: { person_id: id } } })),
  });
export const groups = queryOptions({
  queryKey: ["groups"],
  queryFn: () => all((query) => need(api.GET("/api/groups", { params: { query } }))),
});
export const today = (on: string) =>
  queryOptions({
    queryKey: ["today", on],
    queryFn: () => need(api.GET("/api/today", { params: { query: { on } } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
export const mindToday = (on: string, wbgt_c: number | null) =>
  queryOptions({
    queryKey: ["today", on, "mind", wbgt_c],
    queryFn: () => need(api.GET("/api/today/mind", { params: { query: { on, wbgt_c } } })),
    staleTime: 0,
  });
export const members = queryOptions({
  queryKey: ["members"],
  queryFn: () => all((query) => need(api.GET("/api/members", { params: { query } }))),
});
export const invitations = queryOptions({
  queryKey: ["invitations"],
  queryFn: () => all((query) => need(api.GET("/api/invitations", { params: { query } }))),
});
export const rosterWords = queryOptions({
  queryKey: ["roster-words"],
  queryFn: () => need(api.GET("/api/roster/words")),
  staleTime: Number.POSITIVE_INFINITY,
});
export const camps = queryOptions({ queryKey: ["camps"], queryFn: () => need(api.GET("/api/camps")), staleTime: 0 });
export const camp = (id: number) =>
  queryOptions({
    queryKey: ["camp", id],
    queryFn: () => need(api.GET("/api/camps/{camp_id}", { params: { path: { camp_id: id } } })),
    staleTime: 0,
  });
/** Small changes that would mend what its rules speak of. */
export const campNudges = (id: number) =>
  queryOptions({
    queryKey: ["camp", id, "nudges"],
    queryFn: () => need(api.GET("/api/camps/{camp_id}/nudges", { params: { path: { camp_id: id } } })),
    staleTime: 0,
  });
export const campFeeds = (id: number) =>
  queryOptions({
    queryKey: ["camp", id, "feeds"],
    queryFn: () => need(api.GET("/api/camps/{camp_id}/feeds", { params: { path: { camp_id: id } } })),
    staleTime: 0,
  });
export const classes = queryOptions({
  queryKey: ["classes"],
  queryFn: () => need(api.GET("/api/classes")),
  staleTime: 0,
});
export const classNeeds = queryOptions({
  queryKey: ["classes", "needs"],
  queryFn: () => need(api.GET("/api/classes/needs")),
  staleTime: 0,
});
export const classPlan = (id: number) =>
  queryOptions({
    queryKey: ["class", id],
    queryFn: () => need(api.GET("/api/classes/{class_id}", { params: { path: { class_id: id } } })),
    staleTime: 0,
  });
/** What might change on the day; of a state of the class, which the revision tells apart. */
export const whatIfs = (id: number, revision: number, body: Schemas["SolveClassIn"]) =>
  queryOptions({
    queryKey: ["class", id, "what if", revision],
    queryFn: () => need(api.POST("/api/classes/what-if", { body })),
    staleTime: Number.POSITIVE_INFINITY,
  });
/** Where a session stands in a camp, if it does. */
export const campOf = (sessionId: number) =>
  queryOptions({
    queryKey: ["camp of", sessionId],
    queryFn: () => need(api.GET("/api/sessions/{session_id}/camp", { params: { path: { session_id: sessionId } } })),
  });
/** The class that a session is of, if it is of one. */
export const classOf = (sessionId: number) =>
  queryOptions({
    queryKey: ["class of", sessionId],
    queryFn: () => need(api.GET("/api/sessions/{session_id}/class", { params: { path: { session_id: sessionId } } })),
  });
/** Every link to a session, also those that have ended. */
export const links = (sessionId: number) =>
  queryOptions({
    queryKey: ["links", sessionId],
    queryFn: () => need(api.GET("/api/sessions/{session_id}/links", { params: { path: { session_id: sessionId } } })),
    staleTime: 0,
  });
/** One's own tokens of the API, and what one may be made for. */
export const tokens = queryOptions({
  queryKey: ["account", "tokens"],
  queryFn: () => need(api.GET("/api/tokens")),
  staleTime: 0,
});
/** The last cue tracks of a session, the newest first. */
export const tracks = (sessionId: number) =>
  queryOptions({
    queryKey: ["tracks", sessionId],
    queryFn: () => need(api.GET("/api/sessions/{session_id}/tracks", { params: { path: { session_id: sessionId } } })),
    staleTime: 0,
  });
/** The club's own music that is kept for now, to lie under cue tracks. */
export const music = queryOptions({
  queryKey: ["music"],
  queryFn: () => need(api.GET("/api/music")),
  staleTime: 0,
});
/** What athletes have sent by a link and nobody has taken yet. */
export const sentBack = queryOptions({
  queryKey: ["sent-back"],
  queryFn: () => need(api.GET("/api/sent-back")),
  staleTime: 0,
});
export const sessions = queryOptions({
  queryKey: ["sessions"],
  queryFn: ({ client, queryKey }) =>
    all(
      (query) => need(api.GET("/api/sessions", { params: { query } })),
      // A library of thousands is seen at once; the rest of it follows.
      (first) => client.setQueryData<Schemas["SessionRow"][]>(queryKey, (known) => known ?? first),
    ),
});
export const protocols = queryOptions({
  queryKey: ["protocols"],
  queryFn: () => need(api.GET("/api/protocols")),
  staleTime: Number.POSITIVE_INFINITY,
});
export const combinations = queryOptions({
  queryKey: ["combinations"],
  queryFn: () => all((query) => need(api.GET("/api/combinations", { params: { query } }))),
});
export const letters = queryOptions({
  queryKey: ["letters"],
  queryFn: () => all((query) => need(api.GET("/api/letters", { params: { query } }))),
});
export const coaches = queryOptions({ queryKey: ["coaches"], queryFn: () => need(api.GET("/api/coaches")) });
const LOG_PAGE = 50;

/** The log, the newest first, as many as were asked for. */
export const log = infiniteQueryOptions({
  queryKey: ["log"],
  queryFn: ({ pageParam }) => need(api.GET("/api/log", { params: { query: { limit: LOG_PAGE, offset: pageParam } } })),
  initialPageParam: 0,
  getNextPageParam: (last, pages) => {
    const read = pages.reduce((sum, { items }) => sum + items.length, 0);
    return read < last.count && last.items.length > 0 ? read : undefined;
  },
});

export const method = queryOptions({
  queryKey: ["method"],
  queryFn: () => need(api.GET("/api/method")),
  staleTime: Number.POSITIVE_INFINITY,
});

/** Weeks of a person, of a group, or of the club. */
export const trends = (weeks: number, of: { person_id?: number; group_id?: number }) =>
  queryOptions({
    queryKey: ["log", "trends", weeks, of],
    queryFn: () => need(api.GET("/api/trends", { params: { query: { weeks, ...of } } })),
    placeholderData: keepPreviousData,
  });
/** What somebody's logs have taught. */
export const learned = (personId: number) =>
  queryOptions({
    queryKey: ["log", "learned", personId],
    queryFn: () => need(api.GET("/api/people/{person_id}/learned", { params: { path: { person_id: personId } } })),
  });
/** What to do with somebody's last sessions the next time. */
export const nextTimes = (personId: number) =>
  queryOptions({
    queryKey: ["log", "next", personId],
    queryFn: () => need(api.GET("/api/people/{person_id}/next", { params: { path: { person_id: personId } } })),
  });

export const logEntry = (id: number) =>
  queryOptions({
    queryKey: ["log", id],
    queryFn: () => need(api.GET("/api/log/{entry_id}", { params: { path: { entry_id: id } } })),
  });

export const read = (text: string) =>
  queryOptions({
    queryKey: ["read", text],
    queryFn: () => need(api.POST("/api/read", { body: { text } })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });

export const complete = (text: string) =>
  queryOptions({
    queryKey: ["complete", text],
    queryFn: ({ signal }) => need(api.POST("/api/complete", { body: { text }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 10_000,
  });

export const session = (id: number) =>
  queryOptions({
    queryKey: ["session", id],
    queryFn: () => need(api.GET("/api/sessions/{session_id}", { params: { path: { session_id: id } } })),
    staleTime: 0,
  });

export const liveRuns = queryOptions({
  queryKey: ["live"],
  queryFn: () => need(api.GET("/api/live")),
  staleTime: 0,
});

/** Every plan of a session's next run, for however many people. */
export const runPlans = (id: number) => ["run", id] as const;

export const runPlan = (id: number, people: number) =>
  queryOptions({
    queryKey: [...runPlans(id), people],
    queryFn: () =>
      need(api.GET("/api/sessions/{session_id}/run", { params: { path: { session_id: id }, query: { people } } })),
    // While the plan for another number of people is worked out, the clock stays.
    placeholderData: keepPreviousData,
    staleTime: 0,
  });

/** Who may not do a session today, of those who are to. */
export const gate = (sessionId: number, person: number[]) =>
  queryOptions({
    queryKey: ["gate", sessionId, person],
    queryFn: () =>
      need(
        api.GET("/api/sessions/{session_id}/gate", { params: { path: { session_id: sessionId }, query: { person } } }),
      ),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });

/** Of a class, the stops that stand against what each of them is to do in it. */
export const classGate = (sessionId: number) =>
  queryOptions({
    queryKey: ["gate", sessionId, "class"],
    queryFn: () =>
      need(api.GET("/api/sessions/{session_id}/class-gate", { params: { path: { session_id: sessionId } } })),
    staleTime: 0,
  });

/** The plan of a run as it stood when it began; of a class, with the board as it is by now. */
export const planOfRun = (runId: string, board = 0) =>
  queryOptions({
    queryKey: ["run", runId, board],
    placeholderData: keepPreviousData,
    queryFn: () => need(api.GET("/api/runs/{run_id}/plan", { params: { path: { run_id: runId } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** The session as the one at a place has it, of so many on the floor. */
export const onFloor = (id: number, place: number, of: number, personId: number | null) =>
  queryOptions({
    queryKey: ["on-floor", id, place, of, personId],
    queryFn: () =>
      need(
        api.GET("/api/sessions/{session_id}/on-floor", {
          params: { path: { session_id: id }, query: { place, of, person_id: personId } },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const evaluation = (asked: Schemas["EvaluateIn"]) =>
  queryOptions({
    queryKey: ["evaluation", asked],
    queryFn: async ({ signal }) => {
      // The best guess before it is drawn first.
      if (asked.ranges) await drawn();
      return need(api.POST("/api/evaluate", { body: asked, signal }));
    },
    placeholderData: keepPreviousData,
    staleTime: 60_000,
    gcTime: 120_000,
  });

export const proposals = (asked: Schemas["ProposeIn"]) =>
  queryOptions({
    queryKey: ["proposals", asked],
    queryFn: ({ signal }) => need(api.POST("/api/propose", { body: asked, signal })),
    staleTime: 60_000,
    gcTime: 120_000,
  });

export const nudges = (asked: Schemas["NudgeIn"]) =>
  queryOptions({
    queryKey: ["nudges", asked],
    queryFn: ({ signal }) => need(api.POST("/api/nudges", { body: asked, signal })),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
    gcTime: 60_000,
  });

export const versions = (id: number) =>
  queryOptions({
    queryKey: ["versions", id],
    queryFn: () =>
      all((query) =>
        need(api.GET("/api/sessions/{session_id}/versions", { params: { path: { session_id: id }, query } })),
      ),
  });
