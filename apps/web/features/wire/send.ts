import type { Problem } from "@uprise/contract";
import { takeEarly } from "../../device/early";
import { tabId } from "../../device/tab";
import { noAnswer, notUnderstood, refusalWords, tooSlow } from "./words";

/** An answer that was no success, in words for the one at the screen. `status` is 0 when there was no answer at all. */
export class WireError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problem?: Problem,
  ) {
    super(message);
    this.name = "WireError";
  }
}

/** Calls when the server asks for the passcode: whoever draws the way in. */
let onLocked: () => void = () => undefined;
export const whenLocked = (does: () => void): void => {
  onLocked = does;
};

/** What every call tells of itself: the tab it comes from, so that what it writes is no news to it. */
const told = async (): Promise<Record<string, string>> => ({ "x-uprise-tab": await tabId() });

/** Nothing is waited for longer than this, ms. */
const LIMIT_MS = 15_000;

/** The problem that an answer tells of, where it tells of one. */
export const problemIn = (json: unknown): Problem | undefined =>
  typeof json === "object" && json !== null && "type" in json && "status" in json ? (json as Problem) : undefined;

interface Sent {
  /** What is sent, or the promise of it: it may have to be checked first. */
  body?: unknown;
  version?: number;
  signal?: AbortSignal | undefined;
}

/** A call with its answer, which is the server's own and of the same build; `T` says what it is by the contract. */
export async function send<T>(method: string, path: string, { body: given, version, signal }: Sent = {}): Promise<T> {
  const body = await given;
  const limit = new AbortController();
  const timer = setTimeout(() => limit.abort(), LIMIT_MS);
  const stop = (): void => limit.abort();
  signal?.addEventListener("abort", stop);
  try {
    const early = method === "GET" ? await takeEarly(path, limit.signal) : null;
    const response =
      early ??
      (await fetch(path, {
        method,
        signal: limit.signal,
        headers: {
          ...(method === "GET" ? {} : await told()),
          ...(body === undefined ? {} : { "content-type": "application/json" }),
          ...(version === undefined ? {} : { "if-match": `"${version}"` }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      }));
    const text = await response.text();
    const json = ((): unknown => {
      try {
        return text === "" ? null : JSON.parse(text);
      } catch {
        return undefined;
      }
    })();
    if (!response.ok) {
      const problem = problemIn(json);
      if (response.status === 401 && !path.startsWith("/api/session") && !path.startsWith("/api/recover")) onLocked();
      throw new WireError(response.status, refusalWords(response.status, problem), problem);
    }
    if (json === undefined) throw new WireError(0, notUnderstood);
    return json as T;
  } catch (error) {
    // Whoever asked has gone: this is no fault to be told.
    if (signal?.aborted) throw error;
    if (error instanceof WireError) throw error;
    throw new WireError(0, limit.signal.aborted ? tooSlow : noAnswer);
  } finally {
    clearTimeout(timer);
    signal?.removeEventListener("abort", stop);
  }
}

/** A call whose body or answer is bytes. */
export async function raw(path: string, init: RequestInit): Promise<Response> {
  const headers = { ...(init.headers as Record<string, string>), ...(await told()) };
  const response = await fetch(path, { ...init, headers }).catch(() => {
    throw new WireError(0, noAnswer);
  });
  if (response.ok) return response;
  if (response.status === 401) onLocked();
  const problem = problemIn(await response.json().catch(() => undefined));
  throw new WireError(response.status, refusalWords(response.status, problem), problem);
}

/** Sends a write that was kept while nobody answered. */
export const sendKept = ({
  method,
  path,
  body,
  version,
}: {
  method: string;
  path: string;
  body: unknown;
  version?: number | undefined;
}): Promise<unknown> => send<unknown>(method, path, { body, ...(version === undefined ? {} : { version }) });

/** A call whose answer is told as a stream of events: how far it is, and last the answer or why there is none. */
export async function sendTold<T>(
  path: string,
  /** Under which name the answer comes. */
  name: "plan",
  body: Promise<unknown>,
  signal: AbortSignal | undefined,
  onProgress: (done: number) => void,
): Promise<T> {
  const response = await fetch(path, {
    method: "POST",
    headers: { "content-type": "application/json", accept: "text/event-stream" },
    body: JSON.stringify(await body),
    ...(signal ? { signal } : {}),
  }).catch((error: unknown) => {
    if (signal?.aborted) throw error;
    throw new WireError(0, noAnswer);
  });
  if (!response.ok || !response.body) {
    const problem = problemIn(await response.json().catch(() => undefined));
    throw new WireError(response.status, refusalWords(response.status, problem), problem);
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let unread = "";
  for (;;) {
    const { value, done } = await reader.read().catch((error: unknown) => {
      if (signal?.aborted) throw error;
      throw new WireError(0, noAnswer);
    });
    if (done) throw new WireError(0, noAnswer);
    unread += value;
    const events = unread.split("\n\n");
    unread = events.pop() ?? "";
    for (const event of events) {
      const data = /^data: (.*)$/m.exec(event)?.[1];
      if (data === undefined) continue;
      const { [name]: answer, problem, progress } = JSON.parse(data) as { [N in "plan" | "season"]?: T } & { progress?: number; problem?: Problem }; // prettier-ignore
      if (problem) throw new WireError(problem.status, refusalWords(problem.status, problem), problem);
      if (answer) return answer;
      if (progress !== undefined) onProgress(progress);
    }
  }
}

/** An id made here, so that a call that is sent twice makes one thing. */
export const newId = (): string =>
  globalThis.crypto?.randomUUID?.() ?? `${Date.now().toString(36)}-${Math.floor(Math.random() * 1e9).toString(36)}`;

export { SHELF_PAGE as PAGE } from "../../device/first-asks";
/** More pages than this are not fetched in one go. */
const MOST_PAGES = 50;

/** Every item of a paged list. */
export async function every<T>(page: (page: number) => Promise<{ items: T[]; total: number }>): Promise<T[]> {
  const all: T[] = [];
  for (let n = 1; n <= MOST_PAGES; n++) {
    const { items, total } = await page(n);
    all.push(...items);
    if (items.length === 0 || all.length >= total) break;
  }
  return all;
}
