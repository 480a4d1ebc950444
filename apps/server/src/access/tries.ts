/** How long somebody waits after so many wrong tries, s: nothing for the first, then twice as long each time. */
interface Waiting {
  free: number;
  mostS: number;
}
/** One address; and all strangers together, so that many addresses try no faster than one. */
const ADDRESS: Waiting = { free: 3, mostS: 900 };
const STRANGERS: Waiting = { free: 20, mostS: 60 };
const FORGET_MS = 3_600_000;
const MOST_KEPT = 5000;
const MOST_QUEUED = 8;

interface Count {
  wrong: number;
  until: number;
  last: number;
}

const waitOf = ({ free, mostS }: Waiting, wrong: number): number =>
  wrong <= free ? 0 : Math.min(mostS, 2 ** Math.min(20, wrong - free));

export interface Tries {
  /** Seconds that are still to be waited; 0 where a try may be made. */
  waits(who: string, now?: number): number;
  /** Counts a try as wrong; before it is checked, so that tries at one moment cannot slip through together. */
  book(who: string, now?: number): void;
  /** It was right after all. */
  right(who: string): void;
  /** One try at a time; null where too many stand before it. */
  inTurn<T>(work: () => Promise<T>): Promise<T> | null;
}

/** Counts wrong tries by who makes them and by all who were never right. */
export function countTries(): Tries {
  const kept = new Map<string, Count>();
  const wereRight = new Set<string>();
  const strangers: Count = { wrong: 0, until: 0, last: 0 };
  let before: Count = { ...strangers };
  const more = (count: Count | undefined, waiting: Waiting, now: number): Count => {
    const wrong = (count && now - count.last < FORGET_MS ? count.wrong : 0) + 1;
    return { wrong, until: now + waitOf(waiting, wrong) * 1000, last: now };
  };
  let last: Promise<unknown> = Promise.resolve();
  let queued = 0;
  return {
    waits(who, now = Date.now()) {
      const until = Math.max(kept.get(who)?.until ?? 0, wereRight.has(who) ? 0 : strangers.until);
      return Math.max(0, Math.ceil((until - now) / 1000));
    },
    book(who, now = Date.now()) {
      if (kept.size > MOST_KEPT) for (const [name, count] of kept) if (now - count.last > FORGET_MS) kept.delete(name);
      kept.set(who, more(kept.get(who), ADDRESS, now));
      if (wereRight.has(who)) return;
      before = { ...strangers };
      Object.assign(strangers, more(strangers, STRANGERS, now));
    },
    right(who) {
      kept.delete(who);
      if (wereRight.has(who)) return;
      wereRight.add(who);
      Object.assign(strangers, before);
    },
    inTurn(work) {
      if (queued >= MOST_QUEUED) return null;
      queued++;
      const next = last.then(work).finally(() => queued--);
      last = next.catch(() => undefined);
      return next;
    },
  };
}
