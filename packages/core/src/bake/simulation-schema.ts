import { z } from "zod";
import { heats } from "../formula/stage-kinds";
import { rangeSchema } from "../measure/range-schema";
import { judgedBy } from "./judged";
import { tops, fidelities } from "./simulation";

const shown = z.object({
  /** Seconds from the oven door. */
  time: z.number(),
  phase: z.enum(["oven", "tin", "rack"]),
  /** Height of the upper face of every cell, mm, and what it is like; cell = column × rows + row, columns from the middle, rows from the base. */
  z: z.array(z.number()),
  /** How much wider a free piece is than at first. */
  spread: z.number(),
  celsius: z.array(z.number()),
  set: z.array(z.number()),
});
/** A bake as computed: curves over time, the section, and what is read from them. */
export const simulationSchema = z.object({
  fidelity: z.enum(fidelities),
  /** Seconds from the oven door, through oven, tin and rack; all curves stand on them. */
  times: z.array(z.number()),
  phases: z.array(z.enum(["oven", "tin", "rack"])),
  coreC: z.array(z.number()),
  crownMm: z.array(z.number()),
  edgeMm: z.array(z.number()),
  /** Share of all the gas the batter ever had that has come free, and share of the crumb that has set. */
  gas: z.array(z.number()),
  set: z.array(z.number()),
  surfaceC: z.array(z.number()),
  lossPercent: z.array(z.number()),
  section: z.object({
    rows: z.number(),
    columns: z.number(),
    form: z.enum(["axial", "plane"]),
    /** Outer edge of each column at the base, mm from the middle; the vessel's half-width at its rim over that at its base. */
    xMm: z.array(z.number()),
    flare: z.number(),
    rimMm: z.number().nullable(),
    /** Rows that are no batter, from and to, from the base up: what is under, in and on it. */
    layers: z.array(z.object({ from: z.number(), to: z.number() })),
    frames: z.array(shown),
  }),
  /** Minutes until the core has reached `targetC`, with what the inputs leave open. */
  done: rangeSchema,
  reached: z.boolean(),
  targetC: z.number(),
  /** Minutes it was in the oven here: to `done`, or as long as it was told. */
  minutes: z.number(),
  checkAtMinutes: z.number(),
  /** When the crumb carries itself, so that the tin may be turned; a griddle cake's turn. Null when there is nothing to turn. */
  turnAtMinutes: z.number().nullable(),
  /** When a thick cake on a plate is turned again, while its middle waits. */
  againAtMinutes: z.array(z.number()),
  /** How deep the batter lies before the oven, as in `fill`; what lies on it or under it stands in the crown. */
  depthMm: z.number(),
  top: z.enum(tops),
  highestMm: z.number(),
  /** Middle and edge when it leaves the oven and when it has cooled, mm. */
  outMm: z.object({ middle: z.number(), edge: z.number() }),
  cooledMm: z.object({ middle: z.number(), edge: z.number() }),
  overflowMl: z.number(),
  volumeMlPerG: z.number(),
  /** Water lost in the oven and until it has cooled, % of the batter. */
  loss: z.object({ oven: z.number(), cooled: z.number() }),
  /** Minutes-equivalent at 150 °C of the top's middle and rim and of the base. */
  browning: z.object({ top: z.number(), base: z.number(), rim: z.number() }),
  /** What it is judged by beside its inside, and the minute of every sign in the oven; null where it did not come. */
  judged: z.enum(judgedBy),
  marks: z.object({
    core: z.number().nullable(),
    golden: z.number().nullable(),
    dry: z.number().nullable(),
    skewer: z.number().nullable(),
    springs: z.number().nullable(),
    edge: z.number().nullable(),
  }),
  /** The stages as they were baked, minutes from the start; one where nothing was laid out. */
  stages: z.array(
    z.object({
      from: z.number(),
      to: z.number(),
      mode: z.enum(heats),
      celsius: z.number(),
      covered: z.boolean(),
      free: z.boolean(),
      turned: z.boolean(),
      topped: z.boolean(),
    }),
  ),
  /** Taken out without its colour, before it would have dried out. */
  pale: z.boolean(),
  /** How much wider a piece without walls came out, %. */
  spreadPercent: z.number(),
  /** Crumb that has not set or is over-wet when it is taken out: share of the whole, the same of the open side of what lies on a plate, and its height in the middle, mm. */
  gummy: z.object({ share: z.number(), side: z.number(), mm: z.number() }),
  carryOverK: z.number(),
  /** Minutes on the counter until a clean cut. */
  cutAfterMinutes: z.number(),
  /** Minutes after the oven at which it leaves its tin, and at which it may be eaten warm. */
  outOfTinMinutes: z.number(),
  biteAfterMinutes: z.number(),
  /** What each uncertain input does to the minutes, %. */
  sensitivity: z.array(z.object({ input: z.string(), change: z.string(), percent: z.number() })),
  notes: z.array(z.string()),
});
export type Simulation = z.infer<typeof simulationSchema>;
