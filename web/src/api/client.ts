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

const csrf: Middleware = {
  onRequest({ request }) {
    const token = document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1];
    if (token) request.headers.set("X-CSRFToken", token);
    return request;
  },
  onError() {
    return new Unreachable("No connection to the server.");
  },
};

export const api = createClient<paths>({ baseUrl: window.location.origin });
api.use(csrf);

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer; throws `Refused` with what is wrong, or `Unreachable`. */
export async function need<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked;
  if (response.ok) return data as T;
  if (response.status >= 502) throw new Unreachable("The server is away for a moment.");
  const detail = (error as { detail?: string | Fault[] } | undefined)?.detail;
  const faults = Array.isArray(detail) ? detail : [];
  const said = typeof detail === "string" ? detail : faults.map((fault) => fault.msg).join(" ");
  throw new Refused(response.status, said || `The server answered ${response.status}. Try again.`, faults);
}
