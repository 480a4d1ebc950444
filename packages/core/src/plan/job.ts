import type { Range } from "../measure/range-schema";
import type { ovenModes } from "../pantry/vessel-words";
import type { WorkStep } from "./work-step-schema";

export type OvenMode = (typeof ovenModes)[number];

/** When something is or was done, whole minutes from the beginning of the day. */
export interface Span {
  start: number;
  end: number;
}

/** One batch of one bake, as the schedule sees it. */
export interface Job {
  id: string;
  bakeId: string;
  title: string;
  /** Which of how many. */
  batch: number;
  batches: number;
  /** In an order in which they can be done; durations in whole minutes. */
  steps: readonly JobStep[];
  /** The vessel heats in the oven for so many minutes before. */
  panHeats: number;
  /** How it is baked in each oven that can do it. */
  inOven: ReadonlyMap<string, InOven>;
  /** Vessels of a sort that are taken from the filling to the cooling. */
  vessels: { sort: string; many: number } | null;
  earliest: number;
  /** It was put to this minute by hand: it goes into the oven no earlier, and chooses its place before all that was not. */
  heldAt: number | null;
  readyBy: number | null;
  /** A part of a batter that another job mixes: which job, and the step after which it is there. */
  base?: { jobId: string; stepId: string } | undefined;
  /** What has begun or is done, by step. */
  done: ReadonlyMap<string, Span & { ovenId?: string | undefined }>;
}

export interface InOven {
  /** Whole minutes that the oven is held for it. */
  minutes: number;
  /** How long it bakes, minutes: the oven is held for longer than the middle of it. */
  bakes: Range;
  /** Share of the oven that it fills. */
  load: number;
  celsius: number;
  mode: OvenMode;
}

export interface JobStep extends Omit<WorkStep, "minutes"> {
  /** Whole minutes that are set aside for it. */
  minutes: number;
}

/** A job with its steps in time. */
export interface Placed {
  job: Job;
  ovenId: string;
  spans: Map<string, Span>;
  /** Ids of steps that are done the evening before. */
  evening: string[];
  /** Minutes that the wet batter stands beyond what its steps take. */
  waiting: number;
  /** Minutes until the oven is hot for it; 0 where it is. */
  heating: number;
  ready: number;
  end: number;
}
