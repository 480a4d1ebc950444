import { type BakedAnalysis, ready } from "../balance/readings";
import { simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import { CoreError } from "../errors";
import type { Opened } from "../formula/open";
import type { OpenedPart } from "../formula/open-part";
import { scaled } from "../measure/range";
import type { Range } from "../measure/range-schema";
import type { Shelf } from "../pantry/shelf";
import { outerMm, perRack } from "../pantry/oven-fit";
import { withProfile } from "../pantry/vessel";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import type { PlanOven } from "./heat";
import type { InOven, Job, JobStep, OvenMode } from "./job";
import { splitSteps } from "./split-steps";
import { stepsOf } from "./steps";
import type { WorkStep } from "./work-step-schema";

/** One bake of a day, opened. */
export interface DayBake {
  id: string;
  title: string;
  input: Opened;
  /** How many pieces are wanted, or how many batches; absent, one batch. */
  pieces?: number | undefined;
  batches?: number | undefined;
  /** How many vessels of its sort the kitchen has; absent, enough. */
  vessels?: number | undefined;
  readyBy?: number | undefined;
  earliest?: number | undefined;
  heldAt?: number | undefined;
  /** The parts that the batter is split into; absent, it is baked whole. */
  parts?: readonly OpenedPart[] | undefined;
  /** The list that the baker has made of its steps; absent, as they follow from the formula. */
  steps?: readonly WorkStep[] | undefined;
  /** What has begun or is done, by batch (from 1) and step. */
  done?: readonly { batch: number; stepId: string; start: number; end: number; ovenId?: string | undefined }[] | undefined;
}

export interface DayOven extends PlanOven {
  biasK?: number | undefined;
  swingK?: number | undefined;
}

/** What the jobs of a bake have in common, and what the plan says of it. */
export interface Jobs {
  jobs: Job[];
  piecesABatch: number;
  notes: string[];
}

/** A fan is asked for so much less than a still oven, K; 15 to 25, the trade's rule. */
const FAN_K = 20;
/** An iron that must be hot stands so long in the oven before, min; confidence C. */
const PAN_HEATS_MIN = 12;
/** Cakes of a griddle at once where it is not measured, and what one of them takes across with its gap, mm; confidence C. */
const ON_GRIDDLE = 6;
const CAKE_MM = 115;
/** An oven nobody has measured: its inside, mm, racks, and minutes to 180 °C. */
const USUAL_INSIDE = { widthMm: 450, depthMm: 380 } as const;

/** Pieces that one vessel of a batch takes in the oven, and how many vessels that makes. */
function vesselsOf(vessel: Vessel, pieces: number): number {
  if (vessel.shape === "muffin") return Math.max(1, Math.ceil(pieces / (vessel.pieces ?? 12)));
  return vessel.shape === "free" || vessel.shape === "griddle" ? 1 : Math.max(1, pieces);
}

/** Share of an oven that so many vessels fill; a sheet is a rack. More than one: it does not go in at once. */
export function loadOf(oven: DayOven, vessel: Vessel, many: number): number {
  if (!outerMm(vessel)) return many / oven.racks;
  const inside = { widthMm: oven.widthMm ?? USUAL_INSIDE.widthMm, depthMm: oven.depthMm ?? USUAL_INSIDE.depthMm };
  return many / (Math.max(1, perRack(inside, vessel) ?? 1) * oven.racks);
}

/** The heat at which an oven does what another mode was meant for; null where it cannot. */
function heatIn(oven: DayOven, { celsius, mode = "still" }: Oven): { celsius: number; mode: OvenMode } | null {
  if (oven.modes.includes(mode)) return { celsius, mode };
  if (mode === "still" && oven.modes.includes("fan")) return { celsius: celsius - FAN_K, mode: "fan" };
  if (mode === "fan" && oven.modes.includes("still")) return { celsius: celsius + FAN_K, mode: "still" };
  return null;
}

/** The oven is held for the later half of its range: a load behind it must not wait for a pale loaf. */
export const heldFor = ({ mid, high }: Range): number => Math.ceil(mid + (high - mid) / 2);

function griddleRounds({ shape, lengthMm, widthMm, diameterMm }: Vessel, pieces: number): number {
  if (shape !== "griddle") return 1;
  const along = (mm: number): number => Math.max(1, Math.floor(mm / CAKE_MM));
  const holds =
    lengthMm !== undefined
      ? along(lengthMm) * along(widthMm ?? lengthMm)
      : diameterMm !== undefined
        ? along(diameterMm * 0.8) ** 2
        : ON_GRIDDLE;
  return Math.ceil(pieces / holds);
}

const sortOf = ({ shape, lengthMm, widthMm, heightMm, diameterMm, pieces }: Vessel): string =>
  [shape, lengthMm, widthMm, heightMm, diameterMm, shape === "muffin" ? pieces : ""].join(" ");

interface BakedIn {
  simulation: Simulation;
  analysis: BakedAnalysis;
  steps: WorkStep[];
}

/** Bakes of a day are planned again and again; what was baked once in an oven is kept, the oldest let go. */
const known = new Map<string, BakedIn>();
const KEPT = 60;

function bakedIn(bake: DayBake, oven: Oven, shelf: Shelf, warmMinutes: number | undefined, spread: number | undefined): BakedIn {
  const { input, steps } = bake;
  const key = JSON.stringify([input, oven, warmMinutes, input.lines.map(({ ingredientId }) => shelf.get(ingredientId ?? ""))]);
  let found = known.get(key);
  if (!found) {
    const { start, massSpread, conclude } = ready({ ...input, oven }, shelf);
    const simulation = simulateStart(start, massSpread, { frames: 0, spread });
    const analysis = conclude(simulation);
    found = { simulation, analysis, steps: stepsOf(input, analysis, simulation, shelf, warmMinutes) };
    known.set(key, found);
    const oldest = known.keys().next().value;
    if (known.size > KEPT && oldest !== undefined) known.delete(oldest);
  }
  return steps ? { ...found, steps: [...steps] } : found;
}

/** How a bake goes in every oven that can do it, and how it was baked in the first of them. */
function inOvens(bake: DayBake, ovens: readonly DayOven[], shelf: Shelf, notes: string[]): { inOven: Map<string, InOven>; first: BakedIn; warmMinutes: number | undefined } {
  const asked = bake.input.oven ?? { celsius: 180 };
  const inOven = new Map<string, InOven>();
  let first: BakedIn | null = null;
  let warmMinutes: number | undefined;
  let bakeRange: Range | null = null;
  for (const oven of ovens) {
    const heat = heatIn(oven, asked);
    if (!heat) continue;
    const known = oven.biasK === undefined ? undefined : { biasK: oven.biasK, swingK: oven.swingK ?? 0 };
    const here = withProfile({ ...asked, ...heat, ovenId: oven.id }, known);
    const spread: number | undefined = bakeRange === null ? undefined : Math.log(bakeRange.high / bakeRange.mid);
    const result = bakedIn(bake, here, shelf, oven.warmMinutes, spread);
    if (!first) warmMinutes = oven.warmMinutes;
    first ??= result;
    const minutes = result.analysis.bake.minutes;
    bakeRange ??= minutes;
    const { vessel } = result.analysis.given;
    const many = vesselsOf(vessel, result.analysis.fill.pieces);
    const rounds = griddleRounds(vessel, result.analysis.fill.pieces);
    const load = heat.mode === "hob" ? 1 : loadOf(oven, vessel, many);
    if (load > 1)
      notes.push(`${bake.title}: ${many} vessels do not go into ${oven.name} at once; a batch of fewer pieces would be right.`);
    if (rounds > 1) notes.push(`${bake.title}: ${rounds} rounds on the griddle for each batch.`);
    inOven.set(oven.id, { minutes: heldFor(minutes) * rounds, bakes: scaled(minutes, rounds), load: Math.min(1, load), ...heat });
  }
  if (!first) throw new CoreError("no-oven", `${bake.title} is baked ${asked.mode === "hob" ? "on a hob" : `in an oven with ${asked.mode ?? "still"}`}, and no oven of this day does that. Add one that does, or change the bake.`, "ovens");
  return { inOven, first, warmMinutes };
} // prettier-ignore

/** Steps in whole minutes; the bake is held as long as its slowest oven takes. */
const inWholeMinutes = (steps: readonly WorkStep[], inOven: ReadonlyMap<string, InOven>): JobStep[] => {
  const most = Math.max(...[...inOven.values()].map(({ minutes }) => minutes));
  return steps.map((step) => ({ ...step, minutes: step.kind === "bake" ? most : Math.max(1, Math.ceil(step.minutes.mid - 1e-9)) })); // prettier-ignore
};

type Shared = Pick<Job, "bakeId" | "batch" | "batches" | "earliest" | "heldAt" | "readyBy" | "done">;

/** What all jobs of a batch have in common. */
const sharedOf = (bake: DayBake, k: number, batches: number): Shared => ({
  bakeId: bake.id,
  batch: k + 1,
  batches,
  earliest: bake.earliest ?? 0,
  heldAt: bake.heldAt ?? null,
  readyBy: bake.readyBy ?? null,
  done: new Map((bake.done ?? []).filter(({ batch }) => batch === k + 1).map(({ stepId, start, end, ovenId }) => [stepId, { start, end, ovenId }])),
}); // prettier-ignore

const batchesOf = ({ batches, pieces }: DayBake, piecesABatch: number): number =>
  batches ?? (pieces === undefined ? 1 : Math.max(1, Math.ceil(pieces / piecesABatch)));

const vesselsFor = (bake: DayBake, vessel: Vessel, pieces: number): Job["vessels"] =>
  bake.vessels === undefined ? null : { sort: sortOf(vessel), many: Math.min(bake.vessels, vesselsOf(vessel, pieces)) };

const panHeatsIn = ({ vessel }: BakedAnalysis["given"], { mode }: Oven): number =>
  vessel.preheated === true && mode !== "hob" ? PAN_HEATS_MIN : 0;

/**
 * The batches of a bake: each with its steps in whole minutes and its minutes in every oven that can do it, simulated with what is known of that
 * oven; a split batter is a job for each of its parts, of which the first mixes it for all. Throws as `readings` does, `no-oven` where no oven of
 * the day can do it, `open-lines` where something is not weighed.
 */
export function jobsOf(bake: DayBake, ovens: readonly DayOven[], shelf: Shelf): Jobs {
  if (bake.parts && bake.parts.length > 0) return splitJobs(bake, bake.parts, ovens, shelf);
  const notes: string[] = [];
  const { inOven, first } = inOvens(bake, ovens, shelf, notes);
  const { analysis, steps } = first;
  const piecesABatch = Math.max(1, analysis.fill.pieces);
  const batches = batchesOf(bake, piecesABatch);
  const whole = inWholeMinutes(steps, inOven);
  const jobs = Array.from({ length: batches }, (_, k): Job => ({
    ...sharedOf(bake, k, batches),
    id: `${bake.id}.${k + 1}`,
    title: bake.title,
    steps: whole,
    panHeats: panHeatsIn(analysis.given, bake.input.oven ?? { celsius: 180 }),
    inOven,
    vessels: vesselsFor(bake, analysis.given.vessel, piecesABatch),
  }));
  return { jobs, piecesABatch, notes: [...new Set(notes)] };
}

/** One mixing, and a filling and a bake for each part. */
function splitJobs(bake: DayBake, parts: readonly OpenedPart[], ovens: readonly DayOven[], shelf: Shelf): Jobs {
  const notes: string[] = [];
  const ofParts = parts.map((part) => ({ part, ...inOvens({ ...bake, title: `${bake.title}, ${part.name}`, input: part.input, steps: undefined }, ovens, shelf, notes) }));
  const wholeIn = bakedIn({ ...bake, steps: undefined }, bake.input.oven ?? { celsius: 180 }, shelf, ofParts[0]?.warmMinutes, undefined);
  const split = splitSteps(bake.input, wholeIn.analysis, wholeIn.simulation, parts, shelf, ofParts[0]?.warmMinutes);
  const piecesABatch = Math.max(1, ofParts.reduce((sum, { first }) => sum + first.analysis.fill.pieces, 0));
  const batches = batchesOf(bake, piecesABatch);
  const jobs = Array.from({ length: batches }, (_, k) => k).flatMap((k) =>
    ofParts.map(({ part, inOven, first }, n): Job => {
      const own = split.parts[n]?.steps ?? [];
      const steps = n === 0 ? [...split.bowl, ...own] : own;
      return {
        ...sharedOf(bake, k, batches),
        id: `${bake.id}.${k + 1}.${part.id}`,
        title: `${bake.title}, ${part.name}`,
        steps: inWholeMinutes(steps, inOven),
        panHeats: panHeatsIn(first.analysis.given, part.input.oven ?? { celsius: 180 }),
        inOven,
        vessels: vesselsFor(bake, first.analysis.given.vessel, first.analysis.fill.pieces),
        ...(n === 0 ? {} : { base: { jobId: `${bake.id}.${k + 1}.${parts[0]?.id ?? ""}`, stepId: split.ready } }),
      };
    }),
  );
  return { jobs, piecesABatch, notes: [...new Set(notes)] };
} // prettier-ignore
