import { defaultsOf } from "../balance/defaults";
import type { AnalyseInput, Kitchen } from "../formula/open";
import { gramsOf } from "../formula/components";
import { inputFrom } from "../begin";
import { exactly } from "../measure/range";
import { z } from "zod";
import { ovenSchema, vesselSchema } from "../pantry/vessel-schema";
import { processSchema } from "../formula/process-schema";
import { rangeSchema } from "../measure/range-schema";
import { type RunState, type Season, seasonRunSchema, settingsSchema } from "./season-schema";
import { seasonNow, type SeasonAsked, type SeasonResult } from "./season";

/** A season that is asked for over the wire: a formula in any of the forms in which it is asked with, and what may move. */
export type SeasonRequest = AnalyseInput & { text?: string | undefined } & Pick<
    Season,
    "goals" | "factors" | "bakes" | "blocks" | "seed" | "runs"
  >;
export type DoneRun = NonNullable<SeasonAsked["done"]>[number];

const runSchema = seasonRunSchema.extend({
  lines: z.array(z.object({ ingredientId: z.string(), grams: z.number(), component: z.string().optional() })),
  vessel: vesselSchema,
  oven: ovenSchema,
  process: processSchema,
  /** Minutes for the oven, where minutes are a factor. */
  minutes: z.number().optional(),
  settings: settingsSchema,
});
export const seasonDesignSchema = z.object({
  runs: z.array(runSchema),
  criterion: z.enum(["D", "I"]),
  /** |X'X / n|^(1/p) of what each factor does by itself, those that were done before among them: 1 is orthogonal. */
  efficiency: z.number(),
  /** What cannot be told apart with so few bakes. */
  together: z.array(z.string()),
  refused: z.array(z.object({ settings: settingsSchema, why: z.string() })),
});
export const seasonNextSchema = z.object({
  best: runSchema.nullable(),
  next: z.array(runSchema),
  /** 90 % ranges of the next bake, by quality. */
  expect: z.record(z.string(), rangeSchema),
  stop: z.object({ why: z.string() }).optional(),
  /** By quality: the scatter of a single bake, and the share of the bakes that lay in the range the others gave of them. */
  model: z.array(z.object({ quality: z.string(), noise: z.number(), coverage: z.number().nullable() })),
});

/** A request as a season of the core. Throws as `inputFrom`. */
function seasonFrom(request: SeasonRequest, { shelf }: Kitchen): Season {
  const { goals, factors, bakes, blocks, seed, runs, ...asked } = request;
  const input = inputFrom(asked, shelf);
  const kind = input.kind ?? "loaf";
  const usual = defaultsOf(kind);
  return {
    title: input.title ?? "A season",
    formula: {
      shape: 2,
      title: input.title ?? "A season",
      kind,
      measures: input.measures ?? "metric",
      ...(input.components ? { components: [...input.components] } : {}),
      lines: input.lines.map((line, k) => ({
        id: line.id ?? `l${k + 1}`,
        ...(line.ingredientId === undefined ? {} : { ingredientId: line.ingredientId }),
        ...(line.grams === undefined ? {} : { grams: typeof line.grams === "number" ? exactly(line.grams) : line.grams }),
        ...(line.component === undefined ? {} : { component: line.component }),
        ...(line.off ? { off: true } : {}),
      })),
      vessel: input.vessel ?? usual.vessel,
      oven: { ...usual.oven, ...input.oven },
      process: { ...usual.process, ...input.process },
      notes: "",
    },
    goals,
    factors,
    bakes,
    ...(blocks ? { blocks } : {}),
    seed,
    runs,
    notes: "",
  };
}

const asRun = ({ id, settings, kind, block, why, formula, minutes }: RunState): z.infer<typeof runSchema> => ({
  id,
  settings,
  kind: kind === "logged" ? "first" : kind,
  block,
  why,
  lines: formula.lines.flatMap((line) => (line.ingredientId === undefined || gramsOf(line) === 0 ? [] : [{ ingredientId: line.ingredientId, grams: gramsOf(line), ...(line.component === undefined ? {} : { component: line.component }) }])),
  vessel: formula.vessel,
  oven: formula.oven,
  process: formula.process,
  ...(minutes === undefined ? {} : { minutes }),
}); // prettier-ignore

/** The first bakes of a season that is nowhere kept. Throws as `seasonNow`. */
export function seasonDesign(request: SeasonRequest, done: readonly DoneRun[], packets: SeasonAsked["packets"], kitchen: Kitchen, tell?: (done: number) => boolean): z.infer<typeof seasonDesignSchema> {
  const season = { ...seasonFrom(request, kitchen), runs: [] };
  const { proposed, design, refused } = seasonNow({ season, trials: [], tastings: [], packets, done }, kitchen, tell);
  return { runs: proposed.map(asRun), criterion: design?.criterion ?? "D", efficiency: design?.efficiency ?? 0, together: design?.together ?? [], refused };
} // prettier-ignore

/** What to bake next, by what came out so far. Without its runs a season's first bakes are those of `seasonDesign`: the same seed chooses the same. */
export function seasonNext(request: SeasonRequest, results: readonly SeasonResult[], done: readonly DoneRun[], packets: SeasonAsked["packets"], kitchen: Kitchen, tell?: (done: number) => boolean): z.infer<typeof seasonNextSchema> {
  const asked = seasonFrom(request, kitchen);
  const runs = asked.runs.length > 0 ? asked.runs : seasonDesign(request, done, packets, kitchen).runs;
  const state = seasonNow({ season: { ...asked, runs }, trials: [], tastings: [], packets, results, done }, kitchen, tell);
  const { best, next, stop, model } = state;
  return {
    best: best ? asRun(best) : null,
    next: next ? [asRun(next.run)] : [],
    expect: next?.run.expected ?? {},
    ...(stop.isTime ? { stop: { why: stop.words } } : {}),
    model: model.map(({ quality, noise, within, of }) => ({ quality, noise, coverage: of === 0 ? null : within / of })),
  };
} // prettier-ignore
