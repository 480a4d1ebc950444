import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { StoredBake } from "@uprise/contract";
import type { BakeEvent, BakeRecord, BakeState } from "@uprise/core";
import { bakeClock, foldBake } from "@uprise/core/page-live";
import { useCallback, useEffect, useMemo, useState } from "react";
import { keepEvent, sendWaiting, waitingEvents, type Sent } from "../../device/outbox";
import { isUnsent, readBake } from "../wire/begin-bake";
import { newId, wire, WireError } from "../wire/client";
import { keys } from "../wire/keys";

type Kind = BakeEvent["kind"];
type Body<K extends Kind> = Omit<Extract<BakeEvent, { kind: K }>, "id" | "at" | "kind">;
/** Says that something happened, now. */
export type Happen = <K extends Kind>(kind: K, body: Body<K>, id?: string) => void;

export interface LiveBake {
  record: BakeRecord;
  state: BakeState;
  /** The moment it is at this bake, ms. */
  now: number;
  happen: Happen;
  /** Events of this device that have not arrived. */
  waiting: number;
  /** The line to the server stands. */
  linked: boolean;
  /** Why something was refused for good. */
  refused: string | null;
}

const AGAIN_MS = 4000;
const TICK_MS = 1000;
/** Time that runs faster is looked at more often, ms. */
const REHEARSED_TICK_MS = 250;

async function send(id: string, events: BakeEvent[]): Promise<Sent> {
  try {
    const { refused } = await wire.appendEvents(id, events);
    return { ended: "arrived", refused };
  } catch (error) {
    // The bake itself has not been sent yet: what happened at it waits for it.
    if (await isUnsent(id)) return { ended: "no-answer" };
    const final =
      error instanceof WireError && error.status >= 400 && error.status < 500 && ![401, 408, 429].includes(error.status);
    return final ? { ended: "refused", why: error.message } : { ended: "no-answer" };
  }
}

const merged = (...lists: readonly (readonly BakeEvent[])[]): BakeEvent[] => [
  ...new Map(lists.flat().map((event) => [event.id, event])).values(),
];

export function useStoredBake(id: string) {
  const queries = useQueryClient();
  return useQuery({ queryKey: keys.bake.of(id), queryFn: ({ signal }) => readBake(queries, id, signal) });
}

/** A bake as it goes on: what is stored, what other devices say, and what happened here and has not arrived. */
export function useLiveBake(stored: StoredBake): LiveBake {
  const { id, record } = stored;
  const queries = useQueryClient();
  const [heard, setHeard] = useState<readonly BakeEvent[]>([]);
  const [own, setOwn] = useState<readonly BakeEvent[]>([]);
  const [waiting, setWaiting] = useState(0);
  const [refused, setRefused] = useState<string | null>(null);
  const [linked, setLinked] = useState(true);
  const now = useBakeNow(record);

  const flush = useCallback(async () => {
    await sendWaiting<BakeEvent>(id, (events) => send(id, events));
    const left = await waitingEvents<BakeEvent>(id);
    setWaiting(left.filter((one) => one.refused === undefined).length);
    setRefused(left.find((one) => one.refused !== undefined)?.refused ?? null);
  }, [id]);

  useEffect(() => {
    // What was kept before this page was loaded happened too.
    void waitingEvents<BakeEvent>(id).then((left) =>
      setOwn((before) =>
        merged(
          left.map(({ event }) => event),
          before,
        ),
      ),
    );
    const first = setTimeout(() => void flush(), 0);
    const timer = setInterval(() => void flush(), AGAIN_MS);
    const soon = (): void => void flush();
    globalThis.addEventListener("online", soon);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
      globalThis.removeEventListener("online", soon);
    };
  }, [id, flush]);

  useEffect(() => {
    if (typeof EventSource === "undefined") return;
    const source = new EventSource(`/api/bakes/${encodeURIComponent(id)}/stream?last=${stored.last}`);
    source.onmessage = (message: MessageEvent<string>) => {
      const event = safeJson(message.data) as BakeEvent | null;
      if (event?.id !== undefined) setHeard((before) => merged(before, [event]));
    };
    source.onopen = () => setLinked(true);
    source.onerror = () => setLinked(false);
    return () => source.close();
  }, [id, stored.last]);

  const happen = useCallback<Happen>(
    (kind, body, eventId) => {
      const event = {
        ...body,
        kind,
        id: eventId ?? newId(),
        at: new Date(bakeClock(record, Date.now())).toISOString(),
      } as unknown as BakeEvent;
      setOwn((before) => merged(before, [event]));
      setWaiting((count) => count + 1);
      void keepEvent(id, event)
        .then(flush)
        .then(() => {
          if (kind !== "probe") void queries.invalidateQueries({ queryKey: keys.bakes.all });
        });
    },
    [id, record, flush, queries],
  );
  const state = useMemo(() => foldBake(record, merged(stored.events, heard, own)), [record, stored.events, heard, own]);
  return { record, state, now, happen, waiting, linked, refused };
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** The moment it is at a bake, told every second, and oftener in a rehearsal. */
export function useBakeNow(record: Pick<BakeRecord, "rehearsal">): number {
  const { rehearsal } = record;
  const [now, setNow] = useState(() => bakeClock({ rehearsal }, Date.now()));
  useEffect(() => {
    const timer = setInterval(() => setNow(bakeClock({ rehearsal }, Date.now())), rehearsal ? REHEARSED_TICK_MS : TICK_MS);
    return () => clearInterval(timer);
  }, [rehearsal]);
  return now;
}
