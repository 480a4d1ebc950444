import { hashKey, type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { dropWrite, hearWrites, keepWrite, type KeptWrite, sendWrites, waitingWrites, type WriteEnd } from "../../device/writes";
import { hear } from "./changes";
import { isStoredFormula, sendKept, WireError } from "./client";

const AGAIN_MS = 5000;

/** Whether a call failed because nobody answered, so that it may be sent later. */
export const unanswered = (error: unknown): boolean => error instanceof WireError && error.status === 0;

/** Does a write; where nobody answers it is kept, and the promise gives `null`. Any other fault is thrown. */
export async function sendOrKeep<T>(write: Omit<KeptWrite, "at">, send: () => Promise<T>): Promise<T | null> {
  try {
    const answer = await send();
    // What waited of the same thing is overtaken by what has just arrived.
    await dropWrite(write.key);
    return answer;
  } catch (error) {
    if (!unanswered(error)) throw error;
    const kept = await keepWrite({ ...write, at: Date.now() });
    if (!kept)
      throw new WireError(
        0,
        "Nobody answers, and this device has no room to keep it. It is sent when the server is back, as long as this page stays open.",
      );
    return null;
  }
}

const placeOf = ({ path }: KeptWrite): { what: string; id: string | null } => {
  const [, , what = "", id = null] = path.split("/");
  return { what, id };
};

/** Whether what is stored is what was sent: the answer to an earlier sending was lost on the way. */
function isThere(current: unknown, sent: unknown): boolean {
  if (typeof current !== "object" || current === null || typeof sent !== "object" || sent === null) return false;
  const bare = ({ id: _, reason: _r, predicted: _p, ...rest }: Record<string, unknown>): string => hashKey([rest]);
  const { formula } = current as { formula?: object };
  return (
    bare(sent as Record<string, unknown>) === bare(("lines" in sent && formula ? formula : current) as Record<string, unknown>)
  );
}

async function sendOne(queries: QueryClient, write: KeptWrite): Promise<WriteEnd> {
  try {
    await sendKept(write);
    const { what, id } = placeOf(write);
    const made = id ?? ((write.body as { id?: string }).id ?? null);
    hear(queries, { what, id: made });
    return { ended: "arrived" };
  } catch (error) {
    if (!(error instanceof WireError) || error.status === 0 || error.status === 401 || error.status === 408 || error.status === 429 || error.status >= 500) return { ended: "no-answer" };
    const { what, id } = placeOf(write);
    if (error.status === 412) {
      // What this page holds is older than what is stored, whoever stored it: an earlier sending of its own, perhaps, that is told to other tabs only.
      hear(queries, { what, id });
      if (isThere(error.problem?.current, write.body)) return { ended: "arrived" };
      const theirs = isStoredFormula(error.problem?.current);
      return { ended: "refused", why: "Somebody saved a newer one meanwhile. Both are kept: open it and choose.", ...(theirs && id ? { to: `/bench/${id}` } : {}) };
    }
    return { ended: "refused", why: error.message };
  }
} // prettier-ignore

/** Whether a save of this very thing waits for the server. */
export function useWaits(key: string): boolean {
  const [waits, setWaits] = useState(false);
  useEffect(() => {
    let here = true;
    const look = (): void =>
      void waitingWrites().then((all) => {
        if (here) setWaits(all.some((write) => write.key === key && write.refused === undefined));
      });
    look();
    const stop = hearWrites(look);
    return () => {
      here = false;
      stop();
    };
  }, [key]);
  return waits;
}

/** What waits for the server on this device; sent when it is back, and every some seconds in between. */
export function useOutbox(): { waiting: KeptWrite[]; letGo: (key: string) => void } {
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState<KeptWrite[]>([]);
  const look = useCallback(() => void waitingWrites().then(setWaiting), []);
  useEffect(() => {
    look();
    return hearWrites(look);
  }, [look]);
  const open = waiting.some(({ refused }) => refused === undefined);
  useEffect(() => {
    if (!open) return;
    const send = (): void => void sendWrites((write) => sendOne(queries, write));
    send();
    const timer = setInterval(send, AGAIN_MS);
    globalThis.addEventListener("online", send);
    return () => {
      clearInterval(timer);
      globalThis.removeEventListener("online", send);
    };
  }, [open, queries]);
  return { waiting, letGo: (key) => void dropWrite(key) };
}
