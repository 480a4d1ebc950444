/** How long somebody waits after so many wrong tries, s: nothing for three, then twice as long each time, up to a quarter of an hour. */
const FREE = 3;
const MOST_S = 900;
const FORGET_MS = 3_600_000;
const MOST_KEPT = 5000;

export interface Tries {
  /** Seconds that are still to be waited; 0 where a try may be made. */
  waits(who: string, now?: number): number;
  wrong(who: string, now?: number): void;
  right(who: string): void;
}

/** Counts wrong tries by who makes them. */
export function countTries(): Tries {
  const kept = new Map<string, { wrong: number; until: number; last: number }>();
  return {
    waits(who, now = Date.now()) {
      const one = kept.get(who);
      return one ? Math.max(0, Math.ceil((one.until - now) / 1000)) : 0;
    },
    wrong(who, now = Date.now()) {
      if (kept.size > MOST_KEPT) for (const [name, { last }] of kept) if (now - last > FORGET_MS) kept.delete(name);
      const before = kept.get(who);
      const wrong = (before && now - before.last < FORGET_MS ? before.wrong : 0) + 1;
      const seconds = wrong <= FREE ? 0 : Math.min(MOST_S, 2 ** (wrong - FREE));
      kept.set(who, { wrong, until: now + seconds * 1000, last: now });
    },
    right: (who) => void kept.delete(who),
  };
}
