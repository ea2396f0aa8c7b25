import { csrfToken, type Fault, Refused, Unreachable } from "./client";

/** The account's own doors, which a library keeps: signing in, second steps, passkeys, sessions, mail. */
const DOOR = "/_allauth/browser/v1/";

interface Wrong {
  message: string;
  code: string;
  param?: string;
}
interface Flow {
  id: string;
  is_pending?: boolean;
}
interface Answer {
  data?: unknown;
  meta?: unknown;
  errors?: Wrong[];
}

/** The password was right, and a second step is wanted. */
export class SecondStepWanted extends Error {}

/** It is for whoever has shown lately who they are: ask for the password, and do it again. */
export class NotSure extends Error {}

type Method = "GET" | "POST" | "PUT" | "PATCH" | "DELETE";
interface Asked {
  body?: object | undefined;
  headers?: Record<string, string>;
  /** A status that is an answer here, not a refusal. */
  also?: number[];
}

/** What a door answers: its data and what it tells beside them. */
export async function door<T>(method: Method, path: string, asked: Asked = {}): Promise<{ data: T; meta: unknown }> {
  const { body, headers, also = [] } = asked;
  let response: Response;
  try {
    response = await fetch(DOOR + path, {
      method,
      headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken() ?? "", ...headers },
      ...(body && { body: JSON.stringify(body) }),
    });
  } catch {
    throw new Unreachable("No connection to the server.");
  }
  if (response.status >= 500) throw new Unreachable("The server is away for a moment.");
  const answer = (await response.json().catch(() => ({}))) as Answer;
  if (response.ok || also.includes(response.status)) return { data: answer.data as T, meta: answer.meta };
  throw refusalOf(response.status, answer);
}

function refusalOf(status: number, answer: Answer): Error {
  const errors = answer.errors ?? [];
  const flows = (answer.data as { flows?: Flow[] } | undefined)?.flows ?? [];
  if (status === 401 && !errors.length) {
    if (flows.some((flow) => flow.id === "mfa_authenticate" && flow.is_pending)) return new SecondStepWanted();
    if (flows.some((flow) => flow.id.endsWith("reauthenticate"))) return new NotSure("Your password is wanted again.");
  }
  const faults: Fault[] = errors.map(({ message, code, param }) => ({
    type: code,
    loc: param ? ["body", param] : ["body"],
    msg: message,
    ctx: null,
  }));
  const said = faults.map((fault) => fault.msg).join(" ");
  const otherwise = status === 429 ? "Asked too often. Wait a minute." : `The server answered ${status}. Try again.`;
  return new Refused(status, said || otherwise, faults);
}
