import { z } from "zod";
import type { Analysis } from "./readings";
import { consistencies } from "../body/consistency";
import { type InputLine, isWeighed, placeOf, sortLines, type WeighedLine } from "../formula/components";
import type { OpenLine } from "../formula/components-schema";
import type { AnalyseInput } from "../formula/open";
import { verdicts } from "../lift/lift";
import { rangeSchema } from "../measure/range-schema";
import { allergenSchema, type Allergen, type Ingredient } from "../pantry/ingredient-schema";
import type { Shelf } from "../pantry/shelf";
import { findingIds } from "./finding";

/** The readings that a change moves; percentages on flour and starch. */
export const readingsSchema = z.object({
  verdict: z.enum(verdicts),
  neutralised: rangeSchema,
  residualSodaG: z.number(),
  ph: rangeSchema,
  gasMlPer100g: z.number(),
  consistency: z.enum(consistencies),
  loading: z.number(),
  waterPercent: z.number(),
  fatPercent: z.number(),
  sugarPercent: z.number(),
  binderPercent: z.number(),
  massG: z.number(),
  findings: z.array(z.enum(findingIds)),
});
export type Readings = z.infer<typeof readingsSchema>;

/** A bake in three figures: minutes, height of the crown above the base of the batter, water lost. */
export const bakedInShortSchema = z.object({ minutes: rangeSchema, crownMm: z.number(), lossPercent: z.number() });

export const proposalSchema = z.object({
  title: z.string(),
  why: z.string(),
  /** With `component` in that component, else in the batter. */
  changes: z.array(z.object({ ingredientId: z.string(), fromG: z.number(), toG: z.number(), component: z.string().optional() })),
  /** The whole formula after the change, as a request takes it: components and open lines too. */
  lines: z.array(
    z.object({
      ingredientId: z.string().optional(),
      grams: z.number().optional(),
      name: z.string().optional(),
      component: z.string().optional(),
    }),
  ),
  before: readingsSchema,
  after: readingsSchema,
  kept: z.array(z.string()).optional(),
  lost: z.array(z.string()).optional(),
  allergensAdded: z.array(allergenSchema),
  allergensRemoved: z.array(allergenSchema),
  /** What its bake comes to before and after, where it was asked for and both can be baked. */
  baked: z.object({ before: bakedInShortSchema, after: bakedInShortSchema }).optional(),
});
export type Proposal = z.infer<typeof proposalSchema>;

/** Why nothing could be proposed: the bands that cannot be met together, and the locks that would free them. */
export const conflictSchema = z.object({ message: z.string(), bands: z.array(z.string()), unlock: z.array(z.string()) });
export type Conflict = z.infer<typeof conflictSchema>;

export const proposalsSchema = z.object({
  proposals: z.array(proposalSchema),
  conflict: conflictSchema.optional(),
  /** What is not weighed yet: everything proposed is without it. */
  without: z.array(z.string()).optional(),
  /** What the formula holds of what should be left out: nothing stands in for it, or its line is locked. */
  stillHolds: z
    .array(z.object({ ingredientId: z.string(), allergens: z.array(allergenSchema), locked: z.boolean().optional() }))
    .optional(),
});
export type Proposals = z.infer<typeof proposalsSchema>;

export function readingsOf({ lift, body, batch, findings }: Analysis): Readings {
  const onFlour = (grams: number): number => (batch.baseG > 0 ? (100 * grams) / batch.baseG : 0);
  return {
    verdict: lift.verdict,
    neutralised: lift.neutralised,
    residualSodaG: lift.residualSodaG,
    ph: lift.ph,
    gasMlPer100g: lift.gasMlPer100g.mid,
    consistency: body.consistency,
    loading: body.loading.mid,
    waterPercent: onFlour(batch.waterG),
    fatPercent: onFlour(batch.fatG),
    sugarPercent: onFlour(batch.sugarG),
    binderPercent: body.binder.percent,
    massG: batch.massG,
    findings: findings.map((finding) => finding.id),
  };
}

/** What lets something come into a formula. */
export interface Coming {
  avoid?: readonly Allergen[] | undefined;
  /** What may be added; without it anything on the shelf may. */
  onHand?: readonly string[] | undefined;
  /** What must not come in, beside what holds something to be avoided. */
  refuses?: ((ingredient: Ingredient) => boolean) | undefined;
}

/** Whether diet, wish and shelf let something come into a formula. */
export const mayCome = (ingredient: Ingredient, { avoid = [], onHand, refuses }: Coming): boolean =>
  !ingredient.allergens.some((allergen) => avoid.includes(allergen)) &&
  (!onHand || onHand.includes(ingredient.id)) &&
  refuses?.(ingredient) !== true;

/** A formula as balance and swap see it: what they may move, and what stays beside it as it is. */
export interface Movable {
  batter: WeighedLine[];
  rest: InputLine[];
  open: OpenLine[];
}

/** The batter of an input apart from all else. Throws `unknown-component`. */
export function movableOf(
  { lines, components }: Pick<AnalyseInput, "components"> & { lines: readonly InputLine[] },
  shelf: Shelf,
): Movable {
  const { open } = sortLines(lines, components, shelf);
  const inBatter = new Set((components ?? []).filter((component) => placeOf(component) === "batter").map(({ id }) => id));
  const batter: WeighedLine[] = [];
  const rest: InputLine[] = [];
  for (const line of lines) {
    if (isWeighed(line) && (line.component === undefined || inBatter.has(line.component))) batter.push(line);
    else if (line.off !== true) rest.push(line);
  }
  return { batter, rest, open };
}

/** `without` of an answer, where something is open. */
export const withoutOf = (open: readonly OpenLine[]): Pick<Proposals, "without"> =>
  open.length > 0 ? { without: open.map(({ name }) => name) } : {};

/** A line as a proposal gives it. */
export const proposedLine = ({ ingredientId, grams, name, component }: InputLine): Proposal["lines"][number] => ({
  ...(ingredientId === undefined ? {} : { ingredientId }),
  ...(grams === undefined ? {} : { grams: typeof grams === "number" ? grams : grams.mid }),
  ...(name === undefined ? {} : { name }),
  ...(component === undefined ? {} : { component }),
});

/** Lines after a change: an ingredient on several lines keeps their shares, a new one stands at the end, one at nothing is gone. */
export function linesAfter(
  lines: readonly WeighedLine[],
  toG: ReadonlyMap<string, number>,
): { ingredientId: string; grams: number; component?: string }[] {
  const mid = (line: WeighedLine): number => (typeof line.grams === "number" ? line.grams : line.grams.mid);
  const before = new Map<string, number>();
  for (const line of lines) before.set(line.ingredientId, (before.get(line.ingredientId) ?? 0) + mid(line));
  const out: { ingredientId: string; grams: number; component?: string }[] = [];
  for (const line of lines) {
    const to = toG.get(line.ingredientId);
    const whole = before.get(line.ingredientId) ?? 0;
    const grams = to === undefined ? mid(line) : whole > 0 ? (mid(line) / whole) * to : to;
    const place = line.component === undefined ? {} : { component: line.component };
    if (grams > 0) out.push({ ingredientId: line.ingredientId, grams, ...place });
  }
  for (const [ingredientId, grams] of toG) if (!before.has(ingredientId) && grams > 0) out.push({ ingredientId, grams });
  return out;
}

export function allergensOf(lines: readonly InputLine[], shelf: Shelf): Set<Allergen> {
  return new Set(lines.flatMap((line) => (line.off ? [] : (shelf.get(line.ingredientId ?? "")?.allergens ?? []))));
}
