/** Which tab of the browser this is, which others are alive, and a line between them. */

const freshId = (): string => globalThis.crypto?.randomUUID?.().slice(0, 8) ?? Math.floor(Math.random() * 1e9).toString(36);
const lockOf = (tab: string): string => `uprise.tab.${tab}`;

function sessionId(): string {
  try {
    const kept = globalThis.sessionStorage?.getItem("uprise.tab");
    if (kept) return kept;
  } catch {
    // Without a session store every load is a tab of its own.
  }
  return freshId();
}

function keepId(id: string): string {
  try {
    globalThis.sessionStorage?.setItem("uprise.tab", id);
  } catch {
    // See above.
  }
  return id;
}

/** Holds the lock of a tab for as long as the page lives; false when another page holds it. */
function hold(id: string): Promise<boolean> {
  const { locks } = globalThis.navigator ?? {};
  if (!locks) return Promise.resolve(true);
  return new Promise((done) => {
    void locks.request(lockOf(id), { ifAvailable: true }, (lock) => {
      done(lock !== null);
      return lock === null ? undefined : new Promise(() => undefined);
    });
  });
}

let claimed: Promise<string> | null = null;

/** The id of this tab. It survives a reload; a duplicated tab, which begins with a copy of its parent's, gets one of its own. */
export function tabId(): Promise<string> {
  claimed ??= (async () => {
    const id = sessionId();
    if (await hold(id)) return keepId(id);
    const own = freshId();
    await hold(own);
    return keepId(own);
  })();
  return claimed;
}

/** Whether a tab with that id is open now. */
export async function isAlive(tab: string): Promise<boolean> {
  const { locks } = globalThis.navigator ?? {};
  if (!locks) return false;
  const { held = [] } = await locks.query();
  return held.some((lock) => lock.name === lockOf(tab));
}

/** What tabs tell each other. */
export type TabMessage =
  | { what: "saved"; formulaId: string; version: number; tab: string }
  | { what: "draft"; formulaId: string; unsaved: number; tab: string };

const channel: BroadcastChannel | null = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("uprise.desk");

export const tellTabs = (message: TabMessage): void => channel?.postMessage(message);

/** Hears what other tabs say, until the function it gives is called. */
export function hearTabs(listen: (message: TabMessage) => void): () => void {
  const heard = (event: MessageEvent<TabMessage>): void => listen(event.data);
  channel?.addEventListener("message", heard);
  return () => channel?.removeEventListener("message", heard);
}
