import { z } from "zod";
import type { Process } from "../formula/process-schema";
import type { Item } from "../formula/resolve";
import { within } from "../measure/range";
import { type Range, rangeSchema } from "../measure/range-schema";
import { binderOf } from "./binder";
import { type Consistency, consistencies, consistencyOf, stiffnessOf } from "./consistency";
import { batterDensity } from "./density";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import { nextClasses } from "./next-class";
import { settingOf } from "./setting";
import { batterSugar, drunkBy, freeWaterOf } from "./water";
import { isInclusion } from "../pantry/pieces";

export const bodySchema = z.object({
  consistency: z.enum(consistencies),
  /** The stiffness the word is read from: under 0.95 it pours, above 3.4 it crumbles. */
  stiffness: rangeSchema,
  /** Water and what acts like it over what the dry things can drink, at mixing. */
  loading: rangeSchema,
  atMinutes: z.array(z.object({ minutes: z.number(), loading: z.number(), consistency: z.enum(consistencies) })),
  /** Neighbouring words, and the main liquid that each of them takes, g. */
  next: z.array(z.object({ consistency: z.enum(consistencies), ingredientId: z.string(), fromG: z.number(), toG: z.number() })),
  settingC: rangeSchema,
  densityGPerMl: z.number(),
  binder: z.object({ kind: z.string(), adequacy: z.number(), percent: z.number() }),
});
export type Body = z.infer<typeof bodySchema>;

/** How far absorption capacities and fillings are known, as a share of the loading. */
const LOADING_SPREAD = 0.15;
const STIFFNESS_SPREAD = 0.25;
/** A dough is known better than a batter by its reading: the loading's spread is no more than so much of it. */
const STIFFNESS_SPREAD_MOST = 0.4;
/** Less than this, g, drinks nothing worth a ratio. */
const TRACE_G = 0.01;
const TIMES = [0, 10, 30, 60, 120, 480];

/** The reading of the batter's body. `wantedBinder` is in % xanthan on flour. */
export function bodyOf(items: readonly Item[], process: Process, wantedBinder: number): Body {
  const liquidFat = items.reduce(
    (g, { ingredient, massG }) =>
      g + (isInclusion(ingredient) || ingredient.family === "nut-flour" ? 0 : (massG * ingredient.per100g.fat) / 100),
    0,
  );
  const wet = freeWaterOf(items) + 0.2 * batterSugar(items) + 0.2 * liquidFat;
  const loadingAt = (minutes: number): number => {
    const drunk = drunkBy(items, minutes);
    return drunk > TRACE_G ? wet / drunk : 0;
  };
  const rest = process.restMinutes ?? 0;
  const reading = stiffnessOf(items, process.method, Math.max(10, rest));
  const consistencyAt = (minutes: number): Consistency => consistencyOf(stiffnessOf(items, process.method, Math.max(10, minutes)));
  const stiffness: Range = within(reading, Math.min(STIFFNESS_SPREAD, STIFFNESS_SPREAD_MOST / Math.max(reading, 1e-6)));
  return {
    consistency: consistencyOf(reading),
    stiffness,
    loading: within(loadingAt(rest), LOADING_SPREAD),
    atMinutes: TIMES.map((minutes) => ({ minutes, loading: loadingAt(minutes), consistency: consistencyAt(minutes) })),
    next: nextClasses(items, ingredientOf(builtInShelf, "water"), process, consistencyOf(reading)),
    settingC: settingOf(items),
    densityGPerMl: batterDensity(items, process.method),
    binder: binderOf(items, wantedBinder),
  };
}
