import type { Early } from "./first-asks";

/** What was asked for ahead is of no use any more after so long, ms since the page was asked for. */
const FRESH_MS = 20_000;

/** The answer that was asked for while the page's script was on its way, once; null where there is none, or none came until `signal`. */
export async function takeEarly(path: string, signal: AbortSignal): Promise<Response | null> {
  const asked = (globalThis as Early).upriseEarly;
  const answer = asked?.get(path);
  if (!answer) return null;
  asked?.delete(path);
  if (performance.now() > FRESH_MS) return null;
  return Promise.race([answer, new Promise<null>((done) => signal.addEventListener("abort", () => done(null)))]);
}
