import { z } from "zod";
import { CoreError } from "../errors";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { ovenModes } from "../pantry/vessel-words";
import { rangeSchema } from "../measure/range-schema";
import { giveUpsOf } from "./give-up";
import type { Job, Placed, Span } from "./job";
import { type DayBake, type DayOven, jobsOf } from "./jobs";
import { boundOf, type DayKitchen, schedule, type SearchOptions } from "./schedule";
import { stepNeeds } from "../formula/step-change";
import { stepKinds } from "./work-step";

export const plannedStepSchema = z.object({
  /** `<bakeId>.<batch>.<stepId>`: the same thing keeps its id when the day is planned anew. */
  id: z.string(),
  bakeId: z.string(),
  batch: z.number().int(),
  stepId: z.string(),
  kind: z.enum(stepKinds),
  words: z.string(),
  start: z.string(),
  end: z.string(),
  /** `hands`, `mixer`, or the id of an oven; nothing where it goes on by itself. */
  resources: z.array(z.string()),
  needs: z.enum(stepNeeds),
  /** How long it takes, minutes, where that is not certain. */
  minutes: rangeSchema,
  /** Of what stands between start and end, so many minutes are held in reserve beyond the middle of a bake's range. */
  reserveMinutes: z.number().optional(),
  hot: z.boolean().optional(),
  lines: z.array(z.object({ ingredientId: z.string(), grams: z.number() })),
});
export type PlannedStep = z.infer<typeof plannedStepSchema>;

export const planSchema = z.object({
  start: z.string(),
  steps: z.array(plannedStepSchema),
  /** What is done the evening before. */
  evening: z.array(plannedStepSchema.omit({ start: true, end: true })),
  bakes: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      batches: z.number().int(),
      piecesABatch: z.number(),
      ready: z.string(),
      readyBy: z.string().optional(),
    }),
  ),
  ovens: z.array(z.object({ id: z.string(), name: z.string() })),
  late: z.array(z.object({ bakeId: z.string(), minutes: z.number() })),
  waitingMinutes: z.number(),
  ovenChanges: z.number(),
  end: z.string(),
  bound: z.object({ waitingMinutes: z.number(), end: z.string() }),
  /** Whether nothing can be better by the bounds. */
  optimal: z.boolean(),
  giveUp: z.array(z.object({ what: z.string(), saves: z.number() })),
  notes: z.array(z.string()),
});
export type Plan = z.infer<typeof planSchema>;

export const dayOvenSchema = z.object({
  id: z.string().min(1).max(64),
  name: z.string().trim().min(1).max(120).optional(),
  modes: z.array(z.enum(ovenModes)).min(1).optional(),
  mode: z.enum(ovenModes).optional(),
  racks: z.number().int().min(1).max(20).default(2),
  warmMinutes: z.number().min(0).max(90).optional(),
  widthMm: z.number().min(100).max(2000).optional(),
  depthMm: z.number().min(100).max(2000).optional(),
  biasK: z.number().min(-60).max(60).optional(),
  swingK: z.number().min(0).max(60).optional(),
});

/** A bake as a day names it: its times in ISO 8601 with an offset. */
export interface AskedBake extends Omit<DayBake, "readyBy" | "earliest" | "heldAt" | "done"> {
  readyBy?: string | undefined;
  earliest?: string | undefined;
  /** Put there by hand: it goes into the oven no earlier, and everything else follows. */
  heldAt?: string | undefined;
  done?: readonly { batch: number; stepId: string; start: string; end: string; ovenId?: string | undefined }[] | undefined;
}

export interface Day {
  start: string;
  /** Planned from now: what is not begun begins no earlier. */
  now?: string | undefined;
  bakes: readonly AskedBake[];
  ovens: readonly z.input<typeof dayOvenSchema>[];
  hands: number;
  mixers: number;
}

const USUAL_WARM_MIN = 15;
/** How much of the work is the simulating of its bakes, and the search; the rest is asking what to give up. For the bar that shows it. */
const BAKED_SHARE = 0.5;
const SEARCHED_SHARE = 0.35;
const HOB: DayOven = { id: "hob", name: "Hob", modes: ["hob"], warmMinutes: 6, racks: 1 };

const ovenOf = (asked: z.input<typeof dayOvenSchema>): DayOven => ({
  ...asked,
  name: asked.name ?? asked.id,
  modes: asked.modes ?? (asked.mode === undefined ? ["still", "fan"] : [asked.mode]),
  warmMinutes: asked.warmMinutes ?? USUAL_WARM_MIN,
  racks: asked.racks ?? 2,
});

/** Minutes of a day to and from ISO 8601, in the offset in which the day's beginning was told. */
export class Clock {
  private readonly zero: number;
  private readonly offset: string;
  constructor(start: string) {
    this.zero = Date.parse(start);
    if (Number.isNaN(this.zero))
      throw new CoreError(
        "bad-time",
        `The day begins at "${start}"; a time such as 2026-11-28T05:30:00+01:00 would be right.`,
        "start",
      );
    this.offset = /(Z|[+-]\d\d:?\d\d)$/.exec(start)?.[1] ?? "Z";
  }
  /** Whole minutes; what is due is cut off, so that a plan is never told to have more time than there is. */
  minute(time: string, path: string): number {
    const at = Date.parse(time);
    if (Number.isNaN(at))
      throw new CoreError("bad-time", `"${time}" is no time; one such as 2026-11-28T05:30:00+01:00 would be right.`, path);
    return Math.floor((at - this.zero) / 60_000);
  }
  iso(minute: number): string {
    const [, sign = "+", hours = "0", minutes = "0"] = /([+-])(\d\d):?(\d\d)/.exec(this.offset) ?? [];
    const shift = (sign === "-" ? -1 : 1) * (Number(hours) * 60 + Number(minutes));
    return `${new Date(this.zero + (minute + shift) * 60_000).toISOString().slice(0, 19)}${this.offset}`;
  }
}

/**
 * A day of bakes in order: everything that is done, when, by whom and in which oven; what is late and what to give up for it. Pure; the work of
 * a worker, with progress. Throws as `readings`, `bad-time`, `no-oven`, `empty-day`.
 */
export function planDay(day: Day, shelf: Shelf = builtInShelf, options: SearchOptions = {}): Plan {
  if (day.bakes.length === 0) throw new CoreError("empty-day", "The day has no bakes; one at the least would be right.", "bakes");
  const clock = new Clock(day.start);
  const minute = (time: string | undefined, path: string): number | undefined =>
    time === undefined ? undefined : clock.minute(time, path);
  const ovens = day.ovens.map(ovenOf);
  const hobs = day.bakes.some(({ input }) => input.oven?.mode === "hob") && !ovens.some(({ modes }) => modes.includes("hob"));
  if (hobs) ovens.push(HOB);
  const bakes = day.bakes.map((bake, k): DayBake => ({
    ...bake,
    readyBy: minute(bake.readyBy, `bakes.${k}.readyBy`),
    earliest: minute(bake.earliest, `bakes.${k}.earliest`),
    heldAt: minute(bake.heldAt, `bakes.${k}.heldAt`),
    done: bake.done?.map(({ start, end, ...rest }, n) => ({ ...rest, start: clock.minute(start, `bakes.${k}.done.${n}.start`), end: clock.minute(end, `bakes.${k}.done.${n}.end`) })),
  })); // prettier-ignore
  const { onProgress } = options;
  const made = bakes.map((bake, k) => {
    // What is not asked for any more is not baked; without its bakes there is no day to give back.
    if (onProgress?.((BAKED_SHARE * k) / bakes.length) === true)
      throw new CoreError("stopped", "The plan was stopped before it stood; ask again for it.", "bakes");
    return { bake, ...jobsOf(bake, ovens, shelf) };
  });
  const jobs = made.flatMap((one) => one.jobs);
  const kitchen: DayKitchen = {
    ovens,
    hands: day.hands,
    mixers: day.mixers,
    vessels: vesselsIn(made),
    from: Math.max(0, minute(day.now, "now") ?? 0),
  };
  const found = schedule(jobs, kitchen, {
    ...options,
    ...(onProgress ? { onProgress: (done) => onProgress(BAKED_SHARE + SEARCHED_SHARE * done) } : {}),
  });
  if (!found) throw new CoreError("no-place", "Not every bake finds a place within two days; fewer bakes, a later deadline or another oven would be right.", "bakes"); // prettier-ignore
  const bound = boundOf(jobs, kitchen);
  const late = made.flatMap(({ bake }) => {
    const minutes = Math.max(
      0,
      ...found.placed.map(({ job, ready }) => (job.bakeId === bake.id && job.readyBy !== null ? ready - job.readyBy : 0)),
    );
    return minutes > 0 ? [{ bakeId: bake.id, minutes }] : [];
  });
  const steps = found.placed.flatMap((one) => stepsIn(one, clock));
  return {
    start: day.start,
    steps: steps.sort((a, b) => Date.parse(a.start) - Date.parse(b.start) || Date.parse(a.end) - Date.parse(b.end)),
    evening: found.placed.flatMap((one) => one.evening.flatMap((id) => eveningStep(one.job, id))),
    bakes: made.map(({ bake, piecesABatch }) => ({
      id: bake.id,
      title: bake.title,
      batches: new Set(found.placed.flatMap(({ job }) => (job.bakeId === bake.id ? [job.batch] : []))).size,
      piecesABatch,
      ready: clock.iso(Math.max(...found.placed.map(({ job, ready }) => (job.bakeId === bake.id ? ready : 0)))),
      ...(bake.readyBy === undefined ? {} : { readyBy: clock.iso(bake.readyBy) }),
    })),
    ovens: ovens.map(({ id, name }) => ({ id, name })),
    late,
    waitingMinutes: found.waitingMinutes,
    ovenChanges: found.ovenChanges,
    end: clock.iso(found.end),
    bound: { waitingMinutes: bound.waitingMinutes, end: clock.iso(bound.end) },
    optimal: found.lateMinutes <= bound.lateMinutes && found.waitingMinutes <= bound.waitingMinutes && found.ovenChanges === 0 && found.end <= bound.end, // prettier-ignore
    giveUp: found.lateMinutes > 0 ? giveUpsOf(jobs, kitchen, found, (m) => clock.iso(m)) : [],
    notes: made.flatMap(({ notes }) => notes),
  };
}

/** The vessels of each sort that somebody has counted. */
function vesselsIn(made: readonly { bake: DayBake; jobs: readonly Job[] }[]): Map<string, number> {
  const out = new Map<string, number>();
  for (const { bake, jobs } of made)
    for (const { vessels } of jobs) if (vessels && bake.vessels !== undefined) out.set(vessels.sort, Math.max(out.get(vessels.sort) ?? 0, bake.vessels)); // prettier-ignore
  return out;
}

const titled = ({ title, batch, batches }: Job): string => (batches > 1 ? `${title}, ${batch} of ${batches}` : title);

const plain = (job: Job, step: Job["steps"][number]): Omit<PlannedStep, "start" | "end" | "resources"> => ({
  id: `${job.id}.${step.id}`,
  bakeId: job.bakeId,
  batch: job.batch,
  stepId: step.id,
  kind: step.kind,
  words: step.words,
  needs: step.needs,
  minutes: { low: step.minutes, mid: step.minutes, high: step.minutes },
  ...(step.hot ? { hot: true } : {}),
  lines: step.lines,
});

const eveningStep = (job: Job, id: string): Plan["evening"] =>
  job.steps.flatMap((step) =>
    step.id === id ? [{ ...plain(job, step), resources: step.needs === "hands" ? ["hands"] : [] }] : [],
  );

/** How long a bake takes in its oven, and how much longer than the middle of that the oven is held; nothing of any other step. */
function bakesFor(job: Job, step: Job["steps"][number], ovenId: string, { start, end }: Span): Partial<PlannedStep> {
  const here = step.kind === "bake" && !job.done.has(step.id) ? job.inOven.get(ovenId) : undefined;
  if (!here) return {};
  const reserveMinutes = Math.round((end - start - here.bakes.mid) * 10) / 10;
  if (reserveMinutes <= 0) return { minutes: here.bakes };
  const held = Math.round(reserveMinutes);
  return {
    minutes: here.bakes,
    reserveMinutes,
    ...(held > 0 ? { words: `${step.words} ${held} min of it are held in reserve, for the later half of its range.` } : {}),
  };
}

function stepsIn({ job, ovenId, spans, heating }: Placed, clock: Clock): PlannedStep[] {
  const bakeAt = job.steps.flatMap(({ id, kind }) => (kind === "bake" ? [spans.get(id)?.start ?? 0] : []))[0] ?? 0;
  return job.steps.flatMap((step): PlannedStep[] => {
    const there = spans.get(step.id);
    // An oven that is hot is not heated again.
    const heats =
      step.kind === "preheat" && heating > 0 ? { start: bakeAt - job.panHeats - heating, end: bakeAt - job.panHeats } : null;
    const span = there ?? heats;
    if (!span) return [];
    const resources = step.needs === "oven" ? [ovenId] : step.needs === "mixer" ? ["mixer"] : step.needs === "hands" && step.at === undefined ? ["hands"] : []; // prettier-ignore
    return [
      {
        ...plain(job, step),
        ...bakesFor(job, step, ovenId, span),
        start: clock.iso(span.start),
        end: clock.iso(span.end),
        resources,
      },
    ];
  });
}

export { titled as jobTitle };
