import type { Booking, Heated } from "./heat";
import type { InOven, Job, JobStep, Placed, Span } from "./job";
import type { Taken } from "./minutes";

/** What a kitchen has through a day, with what is taken of it so far. */
export interface Kitchenware {
  hands: Taken;
  mixers: Taken;
  vessels: ReadonlyMap<string, Taken>;
  ovens: ReadonlyMap<string, Heated>;
  /** The first minute in which anything new can be done. */
  from: number;
  horizon: number;
}

/** Steps of a job by where they stand to the oven; what is constant while its place is sought. */
interface Shape {
  before: JobStep[];
  bake: JobStep;
  out: JobStep | null;
  /** Done beside the bake, at a minute of it: nobody's hands are set aside for a look. */
  beside: JobStep[];
  later: JobStep[];
  /** Ids of the steps that each step waits for, turned round. */
  followers: ReadonlyMap<string, string[]>;
  wetted: string | null;
  /** The wetting step and what follows it up to the oven: what must not be done early. */
  wet: ReadonlySet<string>;
  /** What the wet batter stands in any case, and the longest that it may, minutes. */
  stands: number;
  mayStand: number;
}

const shapes = new WeakMap<Job, Shape>();

function shapeOf(job: Job): Shape {
  const known = shapes.get(job);
  if (known) return known;
  const at = job.steps.findIndex(({ kind }) => kind === "bake");
  const bake = job.steps[at];
  if (!bake) throw new Error(`the job ${job.id} bakes nothing`);
  const followers = new Map<string, string[]>();
  for (const { id, after } of job.steps) for (const one of after) followers.set(one, [...(followers.get(one) ?? []), id]);
  const before = job.steps.filter((step, k) => k < at && step.kind !== "preheat");
  const rest = job.steps.slice(at + 1);
  const wetted = job.base?.stepId ?? bake.within?.of ?? null;
  const shape: Shape = {
    before,
    bake,
    out: rest.find(({ kind }) => kind === "out") ?? null,
    beside: rest.filter((step) => step.at !== undefined),
    later: rest.filter((step) => step.at === undefined && step.kind !== "out"),
    followers,
    wetted,
    wet: job.base ? new Set(before.map(({ id }) => id)) : wetFrom(before, wetted),
    stands: wetted === null ? 0 : chainBetween(before, wetted),
    mayStand: bake.within?.minutes ?? Infinity,
  };
  shapes.set(job, shape);
  return shape;
}

function wetFrom(before: readonly JobStep[], wetted: string | null): Set<string> {
  const wet = new Set<string>(wetted === null ? [] : [wetted]);
  for (const { id, after } of before) if (after.some((one) => wet.has(one))) wet.add(id);
  return wet;
}

/** The longest chain of minutes that follows a step up to the oven, itself not counted. */
function chainBetween(before: readonly JobStep[], from: string): number {
  const ends = new Map<string, number>([[from, 0]]);
  let longest = 0;
  for (const { id, after, minutes } of before) {
    const starts = after.flatMap((one) => ends.get(one) ?? []);
    if (id === from || starts.length === 0) continue;
    const end = Math.max(...starts) + minutes;
    ends.set(id, end);
    longest = Math.max(longest, end);
  }
  return longest;
}

/** The minute by which a step before the bake must be over: when the first that waits for it begins. */
function latestEnd(job: Job, step: JobStep, spans: ReadonlyMap<string, Span>, bakeAt: number, stands = 0): number {
  let end = step.kind === "pan" ? bakeAt - job.panHeats : bakeAt - stands;
  for (const id of shapeOf(job).followers.get(step.id) ?? []) end = Math.min(end, spans.get(id)?.start ?? end);
  return end;
}

/** Moves what was done earlier than it need be as close to the oven as the kitchen lets it; the wet steps, the bake and all after stay. */
export function settle(placed: readonly Placed[], ware: Kitchenware): void {
  const bases = new Set(placed.flatMap(({ job }) => job.base?.jobId ?? []));
  const movable = placed
    // A batter that others take their share of stays where they found it.
    .filter(({ job }) => !bases.has(job.id))
    .flatMap((one) => shapeOf(one.job).before.flatMap((step) => (one.spans.has(step.id) && !one.job.done.has(step.id) && !shapeOf(one.job).wet.has(step.id) ? [{ one, step }] : [])))
    .sort((a, b) => (b.one.spans.get(b.step.id)?.start ?? 0) - (a.one.spans.get(a.step.id)?.start ?? 0)); // prettier-ignore
  for (const { one, step } of movable) {
    const bakeAt = one.spans.get(shapeOf(one.job).bake.id)?.start ?? 0;
    const { start = 0 } = one.spans.get(step.id) ?? {};
    const end = latestEnd(one.job, step, one.spans, bakeAt);
    const holder = holderOf(step, ware);
    holder?.add(start, start + step.minutes, -1);
    const later = holder ? (holder.latest(step.minutes, end, start) ?? start) : Math.max(start, end - step.minutes);
    holder?.add(later, later + step.minutes, 1);
    one.spans.set(step.id, { start: later, end: later + step.minutes });
  }
}

type Undo = () => void;

/** Takes what a step needs for its minutes; null where there is nothing to take. */
function holderOf(step: JobStep, { hands, mixers }: Kitchenware): Taken | null {
  if (step.needs === "hands") return hands;
  // Without a machine it is done by hand.
  if (step.needs === "mixer") return mixers.most > 0 ? mixers : hands;
  return null;
}

/** One place of a job: the bake at a minute in an oven, everything else as close to it as the kitchen lets it. Null where that cannot be. */
function tryAt(
  job: Job,
  bakeAt: number,
  { minutes, mode }: InOven,
  { early = false, stand = 0, base }: PlaceOptions,
  ware: Kitchenware,
  undo: Undo[],
): Omit<Placed, "ovenId" | "heating"> | null {
  const { before, bake, out, beside, later, followers, wetted, wet, stands } = shapeOf(job);
  const spans = new Map<string, Span>();
  const evening: string[] = [];
  const bakeEnd = bakeAt + minutes;
  spans.set(bake.id, { start: bakeAt, end: bakeEnd });
  if (base && job.base) spans.set(job.base.stepId, base);
  const take = (taken: Taken, start: number, end: number, many = 1): void => {
    taken.add(start, end, many);
    undo.push(() => taken.add(start, end, -many));
  };
  for (const step of job.steps) {
    const span = job.done.get(step.id);
    if (!span) continue;
    spans.set(step.id, { start: span.start, end: span.end });
    // What is being done now keeps the hands until it is over.
    const holder = holderOf(step, ware);
    if (holder && span.end > ware.from) take(holder, ware.from, span.end);
  }
  // Bread that is done waits for nobody.
  if (out && !spans.has(out.id)) {
    if (!ware.hands.free(bakeEnd, bakeEnd + out.minutes)) return null;
    take(ware.hands, bakeEnd, bakeEnd + out.minutes);
    spans.set(out.id, { start: bakeEnd, end: bakeEnd + out.minutes });
  }
  if (mode === "hob" && !job.done.has(bake.id)) {
    if (!ware.hands.free(bakeAt, bakeEnd)) return null;
    take(ware.hands, bakeAt, bakeEnd);
  }
  const floor = Math.max(ware.from, job.earliest, base?.end ?? 0);
  const put = (step: JobStep, early: boolean): boolean => {
    const end = latestEnd(job, step, spans, bakeAt, wet.has(step.id) ? stand : 0);
    const holder = holderOf(step, ware);
    let start: number | null;
    if (early) {
      const from = step.after.reduce((latest, one) => Math.max(latest, spans.get(one)?.end ?? 0), floor);
      start = holder ? holder.earliest(step.minutes, from) : from;
      if (start !== null && start + step.minutes > end) start = null;
    } else {
      start = holder ? holder.latest(step.minutes, end, floor) : end - step.minutes;
      if (start !== null && start < floor) start = null;
    }
    if (start === null) {
      if (step.ahead === true) evening.push(step.id);
      return step.ahead === true;
    }
    if (holder) take(holder, start, start + step.minutes);
    spans.set(step.id, { start, end: start + step.minutes });
    return true;
  };
  for (let k = before.length - 1; k >= 0; k--) {
    const step = before[k];
    if (step && !spans.has(step.id) && (!early || wet.has(step.id)) && !put(step, false)) return null;
  }
  if (early) for (const step of before) if (!spans.has(step.id) && !put(step, true)) return null;
  // What comes before something that was done the evening before was done then too.
  for (const id of evening)
    for (const step of before) if (followers.get(step.id)?.includes(id) && !evening.includes(step.id)) evening.push(step.id);
  let ready = bakeEnd + (out?.minutes ?? 0);
  let end = ready;
  for (const step of beside) if (!spans.has(step.id)) spans.set(step.id, { start: bakeAt + Math.round(step.at ?? 0), end: Math.min(bakeEnd, bakeAt + Math.round(step.at ?? 0) + 1) }); // prettier-ignore
  for (const step of later) {
    let from = ware.from;
    for (const id of step.after) from = Math.max(from, spans.get(id)?.end ?? 0);
    let span = spans.get(step.id);
    if (!span) {
      const holder = holderOf(step, ware);
      const start = holder ? holder.earliest(step.minutes, from) : from;
      if (start === null) return null;
      if (holder) take(holder, start, start + step.minutes);
      span = { start, end: start + step.minutes };
      spans.set(step.id, span);
    }
    if (step.kind !== "wrap" && step.kind !== "cool-through") ready = Math.max(ready, span.end);
    end = Math.max(end, span.end);
  }
  if (job.vessels) {
    const taken = ware.vessels.get(job.vessels.sort);
    const spanOf = (kind: JobStep["kind"]): Span | undefined => spans.get(job.steps.find((step) => step.kind === kind)?.id ?? "");
    const filled = spanOf("portion")?.start ?? bakeAt;
    const emptied = spanOf("cool-tin")?.end ?? spans.get(out?.id ?? bake.id)?.end ?? bakeEnd;
    if (taken) {
      if (!taken.free(filled, emptied, job.vessels.many)) return null;
      take(taken, filled, emptied, job.vessels.many);
    }
  }
  const mixed = wetted === null ? null : spans.get(wetted);
  const waiting = mixed ? Math.max(0, bakeAt - mixed.end - stands) : 0;
  return { job, spans, evening, waiting, ready, end };
}

/** The least minutes before the bake that a job alone needs, ahead steps left out. */
function leadOf(job: Job): number {
  const { before } = shapeOf(job);
  const starts = new Map<string, number>();
  let lead = 0;
  for (const { id, after, minutes, ahead } of before) {
    if (ahead === true || job.done.has(id)) continue;
    const end = Math.max(0, ...after.map((one) => starts.get(one) ?? 0)) + minutes;
    starts.set(id, end);
    lead = Math.max(lead, end);
  }
  return lead;
}

/** The minute of a bake from which on nothing stands in its way: even its first step comes after all that is taken, and after what is being done of it. */
function calmFrom(job: Job, { hands, mixers, vessels }: Kitchenware, floor: number, stand: number): number {
  const taken = [hands, mixers, ...(job.vessels ? [vessels.get(job.vessels.sort)] : [])].map((one) => one?.freeFrom() ?? 0);
  const done = [...job.done.values()].map(({ end }) => end);
  return Math.max(floor, ...taken, ...done) + shapeOf(job).before.reduce((sum, { minutes }) => sum + minutes, job.panHeats + stand);
}

export interface PlaceOptions {
  /** In that oven alone. */
  ovenId?: string | undefined;
  /** So many minutes the wet batter may wait for the oven, and never longer than it keeps its lift. */
  mayWait: number;
  /** What may be done early is done as early as it can be, and leaves the hands free close to the oven. */
  early?: boolean | undefined;
  /** The batter is mixed so many minutes before it need be, and leaves the hands to another. */
  stand?: number | undefined;
  /** When the batter that it takes its share of is there. */
  base?: Span | undefined;
}

/** Puts a job where its bake begins earliest, and takes what it needs. Null where the day has no place for it. */
export function place(job: Job, ware: Kitchenware, { ovenId, mayWait, ...manner }: PlaceOptions): Placed | null {
  const shape = shapeOf(job);
  const begun = job.done.get(shape.bake.id);
  // A part may have to wait for its oven longer than is good for it: then it is told, and not left out.
  const most = job.base && mayWait === Infinity ? Infinity : Math.min(mayWait, Math.max(0, shape.mayStand - shape.stands));
  const options = { ...manner, mayWait, stand: Math.min(manner.stand ?? 0, most) };
  let best: { at: number; ovenId: string; heating: number; here: InOven } | null = null;
  const own = begun?.ovenId;
  const tried = own !== undefined && job.inOven.has(own) ? [own] : ovenId === undefined ? [...job.inOven.keys()] : [ovenId];
  const floor = Math.max(ware.from, job.earliest, manner.base?.end ?? 0);
  const first = floor + leadOf(job);
  const calm = calmFrom(job, ware, floor, options.stand);
  for (const id of tried) {
    const here = job.inOven.get(id);
    const heated = ware.ovens.get(id);
    if (!here || !heated) continue;
    if (begun) {
      best = { at: begun.start, ovenId: id, heating: 0, here: { ...here, minutes: begun.end - begun.start } };
      break;
    }
    let at = Math.max(first, job.heldAt ?? 0);
    while (at + here.minutes < ware.horizon && (best === null || at < best.at)) {
      // The batter of a part stands from when it was mixed: later it has only stood longer.
      if (manner.base && at - manner.base.end - shape.stands > most) break;
      const asked = heated.ask(bookingOf(job, at, here), ware.from);
      if ("again" in asked) {
        at = Math.max(at + 1, asked.again + job.panHeats);
        continue;
      }
      const undo: Undo[] = [];
      const found = tryAt(job, at, here, options, ware, undo);
      for (const back of undo.reverse()) back();
      if (found && found.waiting <= most) {
        best = { at, ovenId: id, heating: asked.heating, here };
        break;
      }
      // What finds no place where all hands are free finds none later.
      if (at >= calm) break;
      at++;
    }
  }
  if (!best) return null;
  const placed = tryAt(job, best.at, best.here, options, ware, []);
  if (!placed) return null;
  ware.ovens.get(best.ovenId)?.book(bookingOf(job, best.at, best.here));
  return { ...placed, ovenId: best.ovenId, heating: best.heating };
}

const bookingOf = (job: Job, at: number, { minutes, load, celsius, mode }: InOven): Booking => ({
  jobId: job.id,
  start: at - job.panHeats,
  end: at + minutes,
  celsius,
  mode,
  load,
});

/** What a job takes at the least, by itself in a kitchen with hands for everything: minutes to the bake, in the oven, to being ready, to its end. */
export function leastOf(job: Job): { lead: number; inOven: number; toReady: number; toEnd: number } {
  const { bake, out, later } = shapeOf(job);
  const inOven = Math.min(...[...job.inOven.values()].map(({ minutes }) => minutes));
  const ends = new Map<string, number>([[bake.id, 0]]);
  let toReady = out?.minutes ?? 0;
  if (out) ends.set(out.id, out.minutes);
  let toEnd = toReady;
  for (const { id, kind, after, minutes } of later) {
    const end = Math.max(0, ...after.map((one) => ends.get(one) ?? 0)) + minutes;
    ends.set(id, end);
    if (kind !== "wrap" && kind !== "cool-through") toReady = Math.max(toReady, end);
    toEnd = Math.max(toEnd, end);
  }
  return { lead: leadOf(job), inOven, toReady, toEnd };
}
