import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./generated";

export type Schemas = components["schemas"];
export type Fault = Schemas["Fault"];

/** The server answered, and said no. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly faults: Fault[],
  ) {
    super(message);
  }
}

/** No answer at all: the network or the server is away. */
export class Unreachable extends Error {}

export const csrfToken = (): string | undefined => document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1];

/** A request with its token, on its way at once: what draws after it does not hold it up. */
function sent(request: Request): Promise<Response> {
  const token = csrfToken();
  if (token) request.headers.set("X-CSRFToken", token);
  return fetch(request);
}

const unreachable: Middleware = {
  onError: () => new Unreachable("No connection to the server."),
};

export const api = createClient<paths>({ baseUrl: window.location.origin, fetch: sent });
api.use(unreachable);

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer; throws `Refused` with what is wrong, or `Unreachable`. */
export async function need<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked;
  if (response.ok) return data as T;
  if (response.status >= 500) throw new Unreachable("The server is away for a moment.");
  if (response.status === 429) throw new Unreachable("The server has much to do just now.");
  throw refusal(response.status, error);
}

/** The refusal in an answer, with what is wrong in words. */
export function refusal(status: number, answer: unknown): Refused {
  const detail = (answer as { detail?: string | Fault[] } | null | undefined)?.detail;
  const faults = Array.isArray(detail) ? detail : [];
  const said = typeof detail === "string" ? detail : faults.map((fault) => fault.msg).join(" ");
  return new Refused(status, said || `The server answered ${status}. Try again.`, faults);
}

/** A file as the body of a request. */
export const withFile = (file: File) => ({
  body: { file: file as never },
  bodySerializer: () => {
    const form = new FormData();
    form.append("file", file);
    return form;
  },
});
