import { type BakedAnalysis, ready } from "../balance/readings";
import { simulateStart } from "../bake/simulate";
import { CoreError } from "../errors";
import type { Opened } from "../formula/open";
import { scaled } from "../measure/range";
import type { Range } from "../measure/range-schema";
import type { Shelf } from "../pantry/shelf";
import { outerMm, perRack } from "../pantry/oven-fit";
import { withProfile } from "../pantry/vessel";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import type { PlanOven } from "./heat";
import type { InOven, Job, JobStep, OvenMode, Span } from "./job";
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
    found = { analysis, steps: stepsOf(input, analysis, simulation, shelf, warmMinutes) };
    known.set(key, found);
    const oldest = known.keys().next().value;
    if (known.size > KEPT && oldest !== undefined) known.delete(oldest);
  }
  return steps ? { ...found, steps: [...steps] } : found;
}

/**
 * The batches of a bake: each with its steps in whole minutes and its minutes in every oven that can do it, simulated with what is known of that
 * oven. Throws as `readings` does, `no-oven` where no oven of the day can do it, `open-lines` where something is not weighed.
 */
export function jobsOf(bake: DayBake, ovens: readonly DayOven[], shelf: Shelf): Jobs {
  const notes: string[] = [];
  const asked = bake.input.oven ?? { celsius: 180 };
  const inOven = new Map<string, InOven>();
  let first: BakedIn | null = null;
  let bakeRange: Range | null = null;
  for (const oven of ovens) {
    const heat = heatIn(oven, asked);
    if (!heat) continue;
    const known = oven.biasK === undefined ? undefined : { biasK: oven.biasK, swingK: oven.swingK ?? 0 };
    const here = withProfile({ ...asked, ...heat, ovenId: oven.id }, known);
    const spread: number | undefined = bakeRange === null ? undefined : Math.log(bakeRange.high / bakeRange.mid);
    const result = bakedIn(bake, here, shelf, oven.warmMinutes, spread);
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
    inOven.set(oven.id, {
      minutes: heldFor(minutes) * rounds,
      bakes: scaled(minutes, rounds),
      load: Math.min(1, load),
      ...heat,
    });
  }
  if (!first) throw new CoreError("no-oven", `${bake.title} is baked ${asked.mode === "hob" ? "on a hob" : `in an oven with ${asked.mode ?? "still"}`}, and no oven of this day does that. Add one that does, or change the bake.`, "ovens"); // prettier-ignore
  const { analysis, steps } = first;
  const piecesABatch = Math.max(1, analysis.fill.pieces);
  const batches = bake.batches ?? (bake.pieces === undefined ? 1 : Math.max(1, Math.ceil(bake.pieces / piecesABatch)));
  const { vessel } = analysis.given;
  const most = Math.max(...[...inOven.values()].map(({ minutes }) => minutes));
  const whole = steps.map((step): JobStep => ({ ...step, minutes: step.kind === "bake" ? most : Math.max(1, Math.ceil(step.minutes.mid - 1e-9)) })); // prettier-ignore
  const jobs = Array.from({ length: batches }, (_, k): Job => {
    const done = new Map<string, Span & { ovenId?: string | undefined }>(
      (bake.done ?? [])
        .filter(({ batch }) => batch === k + 1)
        .map(({ stepId, start, end, ovenId }) => [stepId, { start, end, ovenId }]),
    );
    return {
      id: `${bake.id}.${k + 1}`,
      bakeId: bake.id,
      title: bake.title,
      batch: k + 1,
      batches,
      steps: whole,
      panHeats: vessel.preheated === true && asked.mode !== "hob" ? PAN_HEATS_MIN : 0,
      inOven,
      vessels:
        bake.vessels === undefined ? null : { sort: sortOf(vessel), many: Math.min(bake.vessels, vesselsOf(vessel, piecesABatch)) },
      earliest: bake.earliest ?? 0,
      heldAt: bake.heldAt ?? null,
      readyBy: bake.readyBy ?? null,
      done,
    };
  });
  return { jobs, piecesABatch, notes: [...new Set(notes)] };
}
