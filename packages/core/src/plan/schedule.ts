import { seeded } from "../random";
import { Heated, type PlanOven } from "./heat";
import type { Job, Placed } from "./job";
import { Taken } from "./minutes";
import { type Kitchenware, leastOf, place, settle } from "./place";

/** What a kitchen has for a day. */
export interface DayKitchen {
  ovens: readonly PlanOven[];
  hands: number;
  mixers: number;
  /** How many vessels of a sort there are. */
  vessels: ReadonlyMap<string, number>;
  /** The minute from which anything new can be done. */
  from: number;
}

/** What a schedule is judged by, in this order; minutes, but for the changes of the ovens' heat. */
export interface Worth {
  lateMinutes: number;
  waitingMinutes: number;
  ovenChanges: number;
  end: number;
}

export interface Schedule extends Worth {
  placed: Placed[];
}

/** In which order the jobs choose their place, in which oven, and how many minutes each wet batter may wait for it. */
interface Choice {
  order: readonly number[];
  ovenOf: readonly (string | undefined)[];
  mayWait: readonly number[];
  /** What may be done early is done early. */
  early: readonly boolean[];
  /** So many minutes a batter is mixed before it need be, of those that it may wait. */
  stand: readonly number[];
}

/** Minutes of waiting that are tried. */
const WAITS = [0, 1, 2, 3, 5, 8, Infinity] as const;

/** Two days are enough for any day: what ends later is late beyond use. */
const DAY_MINUTES = 2 * 24 * 60;

const inOrder = ({ lateMinutes, waitingMinutes, ovenChanges, end }: Worth): number[] => [
  lateMinutes,
  waitingMinutes,
  ovenChanges,
  end,
];

/** Whether one schedule is worth more than another. */
export function better(a: Worth, b: Worth): boolean {
  const [of, than] = [inOrder(a), inOrder(b)];
  const k = of.findIndex((value, at) => value !== than[at]);
  return k >= 0 && (of[k] ?? 0) < (than[k] ?? 0);
}

/** Places jobs one after the other as a choice says; what it needs is made once and cleared for each. */
class Decoder {
  private readonly ware: Kitchenware;
  private readonly heated: Heated[];
  constructor(
    private readonly jobs: readonly Job[],
    kitchen: DayKitchen,
  ) {
    const horizon = Math.max(kitchen.from, ...jobs.map(({ earliest, readyBy }) => Math.max(earliest, readyBy ?? 0))) + DAY_MINUTES;
    this.heated = kitchen.ovens.map((oven) => new Heated(oven));
    this.ware = {
      hands: new Taken(kitchen.hands, horizon),
      mixers: new Taken(kitchen.mixers, horizon),
      vessels: new Map([...kitchen.vessels].map(([sort, many]) => [sort, new Taken(many, horizon)])),
      ovens: new Map(this.heated.map((one) => [one.oven.id, one])),
      from: kitchen.from,
      horizon,
    };
  }

  /** Null where a job has no place at all, or where what is placed so far is no better than `than`: another job makes nothing better. */
  decode({ order, ovenOf, mayWait, early, stand }: Choice, than: Worth | null): Schedule | null {
    const { ware, jobs, heated } = this;
    ware.hands.clear();
    ware.mixers.clear();
    for (const taken of ware.vessels.values()) taken.clear();
    for (const one of heated) one.clear();
    const placed: Placed[] = [];
    let worth: Worth = worthOf(placed, 0);
    for (const index of order) {
      const job = jobs[index];
      if (!job) continue;
      const wait = mayWait[index] ?? 0;
      // Where its batter is not mixed yet there is nothing to take.
      const base = job.base && placed.find((one) => one.job.id === job.base?.jobId)?.spans.get(job.base.stepId);
      if (job.base && !base) return null;
      const found =
        place(job, ware, { ovenId: ovenOf[index], mayWait: wait, early: early[index], stand: stand[index], base }) ??
        (wait === Infinity ? null : place(job, ware, { ovenId: ovenOf[index], mayWait: Infinity, early: early[index], base }));
      if (!found) return null;
      placed.push(found);
      worth = worthOf(placed, heated.reduce((sum, one) => sum + one.changes(), 0)); // prettier-ignore
      if (than && !better(worth, than)) return null;
    }
    return { placed, ...worth };
  }

  /** The schedule of a choice with nothing done earlier than it need be. */
  settled(choice: Choice): Schedule | null {
    const found = this.decode(choice, null);
    if (found) settle(found.placed, this.ware);
    return found;
  }
}

const lateBy = ({ job, ready }: Placed): number => (job.readyBy === null ? 0 : Math.max(0, ready - job.readyBy));

function worthOf(placed: readonly Placed[], ovenChanges: number): Worth {
  return {
    lateMinutes: placed.reduce((sum, one) => sum + lateBy(one), 0),
    waitingMinutes: placed.reduce((sum, { waiting }) => sum + waiting, 0),
    ovenChanges,
    end: Math.max(0, ...placed.map(({ end }) => end)),
  };
}

/** The sum of what goes on hand by hand: a bound of how soon a job can be ready after it begins. */
const wholeOf = ({ steps }: Job): number => steps.reduce((sum, { minutes, at }) => sum + (at === undefined ? minutes : 0), 0);

/** Up to so many jobs every order is tried. */
const ALL_ORDERS = 5;

function* ordersOf(indices: readonly number[]): Generator<number[]> {
  if (indices.length <= 1) {
    yield [...indices];
    return;
  }
  for (const [k, first] of indices.entries())
    for (const rest of ordersOf([...indices.slice(0, k), ...indices.slice(k + 1)])) yield [first, ...rest];
}

export interface SearchOptions {
  /** So many schedules are tried beyond the first ones. */
  tries?: number | undefined;
  /** Told what share of the search is done; true from it ends the search with what there is. */
  onProgress?: ((done: number) => boolean) | undefined;
}

/** Small days are looked through more closely; more than this finds nothing in large ones. */
const TRIES = { few: 600, many: 200 } as const;
const TELL_EVERY = 20;

const AGAIN = 0.4;

/** The ways in which one batch is made: what may be done early, and how long its batter stands. */
const MANNERS = [0, 1, 2, 3, 5, Infinity].flatMap((wait) => [false, true].map((early) => ({ wait, early })));

function inManners(
  order: readonly number[],
  ovenOf: Choice["ovenOf"],
  jobs: readonly Job[],
  manners: ReadonlyMap<number | undefined, (typeof MANNERS)[number]>,
): Choice {
  const of = (k: number): (typeof MANNERS)[number] => manners.get(k) ?? { wait: 0, early: false };
  return {
    order,
    ovenOf,
    mayWait: jobs.map((_, k) => of(k).wait),
    early: jobs.map((_, k) => of(k).early),
    stand: jobs.map((_, k) => (Number.isFinite(of(k).wait) ? of(k).wait : 0)),
  };
}

interface Best extends Schedule {
  choice: Choice;
}

/**
 * A day without conflict: it meets the deadlines where it can, then lets wet batter wait least, then changes the ovens least, then ends earliest.
 * Small days are tried in every order; larger ones begin with orders of the trade and are bettered by moves of one job. Null where a job has no
 * place (an oven that nobody has). Minutes from the day's beginning.
 */
export function schedule(
  jobs: readonly Job[],
  kitchen: DayKitchen,
  { tries = jobs.length > ALL_ORDERS ? TRIES.many : TRIES.few, onProgress }: SearchOptions = {},
): Schedule | null {
  const decoder = new Decoder(jobs, kitchen);
  const jobAt = (k: number): Job => jobs[k] as Job;
  const all = jobs.map((_, k) => k);
  // What has begun keeps what it has, then what was put somewhere by hand; all else is put around them.
  const begun = all.filter((k) => jobAt(k).done.size > 0);
  const held = all.filter((k) => jobAt(k).done.size === 0 && jobAt(k).heldAt !== null).sort((a, b) => (jobAt(a).heldAt ?? 0) - (jobAt(b).heldAt ?? 0)); // prettier-ignore
  const first = [...begun, ...held];
  const fresh = all.filter((k) => !first.includes(k));
  const anyOven = jobs.map(() => undefined);
  let best: Best | null = null;
  /** A batter is mixed before its parts are taken from it. */
  const mixedFirst = (order: readonly number[]): number[] => {
    const out: number[] = [];
    for (const k of order) {
      const base = jobAt(k).base;
      const mixes = base ? jobs.findIndex(({ id }) => id === base.jobId) : -1;
      for (const one of [mixes, k]) if (one >= 0 && !out.includes(one)) out.push(one);
    }
    return out;
  };
  const split = jobs.some(({ base }) => base !== undefined);
  const consider = (asked: Choice): void => {
    const choice = split ? { ...asked, order: mixedFirst(asked.order) } : asked;
    const found = decoder.decode(choice, best);
    if (found) best = { ...found, choice };
  };
  const considerOrder = (order: readonly number[]): void => {
    for (const wait of [0, Infinity])
      for (const early of [false, true])
        consider({
          order: [...first, ...order],
          ovenOf: anyOven,
          mayWait: jobs.map(() => wait),
          early: jobs.map(() => early),
          stand: jobs.map(() => 0),
        });
  };
  const by = (key: (job: Job) => number): number[] => [...fresh].sort((a, b) => key(jobAt(a)) - key(jobAt(b)) || a - b);
  const due = (job: Job): number => job.readyBy ?? Number.MAX_SAFE_INTEGER / 2;
  const heat = ({ inOven }: Job): number => [...inOven.values()][0]?.celsius ?? 0;
  for (const key of [due, (job: Job) => due(job) - wholeOf(job), (job: Job) => -wholeOf(job), heat, (job: Job) => -heat(job)])
    considerOrder(by(key));
  if (fresh.length <= ALL_ORDERS) for (const order of ordersOf(fresh)) considerOrder(order);
  if (fresh.length === 2)
    for (const order of ordersOf(fresh))
      for (const a of MANNERS) for (const b of MANNERS) consider(inManners([...first, ...order], anyOven, jobs, new Map([[order[0], a], [order[1], b]]))); // prettier-ignore
  const random = seeded(20261126 + jobs.length);
  const pick = <T>(from: readonly T[]): T | undefined => from[Math.floor(random() * from.length)];
  const ovenIds = [undefined, ...kitchen.ovens.map(({ id }) => id)];
  for (let tried = 0; tried < tries && fresh.length > 0; tried++) {
    const from = best as Best | null;
    if (from === null || (tried % TELL_EVERY === 0 && onProgress?.(tried / tries) === true)) break;
    let choice = from.choice;
    // One move, seldom two or three: what lets one batter go first is often that another stands a little.
    do choice = moved(choice, pick(fresh) ?? 0, first.length, random(), pick);
    while (random() < AGAIN);
    consider(choice);
  }
  onProgress?.(1);
  const found = best as Best | null;
  return found && decoder.settled(found.choice);

  function moved(from: Choice, job: number, fixed: number, move: number, any: typeof pick): Choice {
    const choice = {
      order: [...from.order],
      ovenOf: [...from.ovenOf],
      mayWait: [...from.mayWait],
      early: [...from.early],
      stand: [...from.stand],
    };
    if (move < 0.55 && fresh.length > 1) {
      choice.order.splice(choice.order.indexOf(job), 1);
      choice.order.splice(fixed + Math.floor(random() * (choice.order.length - fixed + 1)), 0, job);
    } else if (move < 0.7) choice.mayWait[job] = any(WAITS) ?? 0;
    else if (move < 0.77) {
      const wait = any(WAITS) ?? 0;
      choice.mayWait[job] = wait;
      choice.stand[job] = Number.isFinite(wait) ? wait : 0;
    } else if (move < 0.85) choice.early[job] = choice.early[job] !== true;
    else {
      const oven = any(ovenIds);
      choice.ovenOf[job] = oven !== undefined && jobAt(job).inOven.has(oven) ? oven : undefined;
    }
    return choice;
  }
}

export interface Bound {
  waitingMinutes: number;
  lateMinutes: number;
  end: number;
}

/**
 * What no schedule can be better than: what each job needs by itself with hands for everything; all the work of the hands together; all the minutes
 * of the ovens by the share they are filled. Waiting is 0 at the least.
 */
export function boundOf(jobs: readonly Job[], kitchen: DayKitchen): Bound {
  let [end, lateMinutes, hands, filled, head, tail] = [kitchen.from, 0, 0, 0, Infinity, Infinity];
  for (const job of jobs) {
    const bake = job.steps.find(({ kind }) => kind === "bake");
    const began = bake && job.done.get(bake.id);
    const { lead, inOven, toReady, toEnd } = leastOf(job);
    const out = began?.end ?? Math.max(Math.max(kitchen.from, job.earliest) + lead, job.heldAt ?? 0) + inOven;
    end = Math.max(end, out + toEnd);
    if (job.readyBy !== null) lateMinutes += Math.max(0, out + toReady - job.readyBy);
    for (const step of job.steps)
      if ((step.needs === "hands" || (step.needs === "mixer" && kitchen.mixers === 0)) && step.ahead !== true && step.at === undefined && !job.done.has(step.id)) hands += step.minutes; // prettier-ignore
    if (began) continue;
    filled += Math.min(...[...job.inOven.values()].map(({ minutes, load }) => minutes * load));
    head = Math.min(head, lead);
    tail = Math.min(tail, toEnd);
  }
  const begin = Math.max(kitchen.from, Math.min(...jobs.map(({ earliest }) => earliest)));
  end = Math.max(end, begin + Math.ceil(hands / kitchen.hands));
  if (filled > 0) end = Math.max(end, begin + head + Math.ceil(filled / Math.max(1, kitchen.ovens.length)) + tail);
  return { waitingMinutes: 0, lateMinutes, end };
}
