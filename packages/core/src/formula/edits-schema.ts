import { z } from "zod";
import { fillingSchema } from "../measure/filling-schema";
import { rangeSchema } from "../measure/range-schema";
import { measuresSchema, unitSchema } from "../measure/units-schema";
import { ovenSchema, vesselSchema } from "../pantry/vessel-schema";
import { formulaComponentSchema } from "./components-schema";
import { type Formula, formulaLineSchema, formulaSchema, partSchema, pastedSchema, saidSchema } from "./formula";
import { kindSchema } from "./kinds-schema";
import { processSchema } from "./process-schema";
import { whatIfSchema } from "./what-if-schema";

const lineId = z.string();
const partId = z.string();
const clears = z.array(z.string()).optional();
/**
 * Every change of a formula, as data: the sheet, what-if, balance, swap, undo, the reasons of versions and whatever is sent later use these.
 * `clear` names optional fields to take away.
 */
export const editSchema = z.discriminatedUnion("edit", [
  z.object({ edit: z.literal("rename"), title: z.string() }),
  z.object({ edit: z.literal("set-kind"), kind: kindSchema }),
  z.object({ edit: z.literal("set-measures"), measures: measuresSchema }),
  z.object({ edit: z.literal("set-notes"), notes: z.string() }),
  z.object({
    edit: z.literal("set-amount"),
    lineId,
    grams: rangeSchema,
    unit: unitSchema.optional(),
    filling: fillingSchema.optional(),
  }),
  z.object({ edit: z.literal("set-ingredient"), lineId, ingredientId: z.string() }),
  z.object({ edit: z.literal("rename-line"), lineId, name: z.string() }),
  z.object({ edit: z.literal("note-line"), lineId, note: z.string() }),
  z.object({ edit: z.literal("lock"), lineId, locked: z.boolean() }),
  z.object({ edit: z.literal("move"), lineId, by: z.number().int() }),
  z.object({ edit: z.literal("add"), line: formulaLineSchema }),
  z.object({ edit: z.literal("remove"), lineId }),
  /** Puts a line into a component (the batter without one), before another line or at its end. */
  z.object({ edit: z.literal("place"), lineId, component: z.string().optional(), before: z.string().optional() }),
  /** Leaves a line out, or takes it. */
  z.object({ edit: z.literal("leave-out"), lineId, off: z.boolean() }),
  z.object({ edit: z.literal("add-component"), component: formulaComponentSchema }),
  z.object({
    edit: z.literal("set-component"),
    componentId: z.string(),
    set: formulaComponentSchema.omit({ id: true }).partial(),
    clear: clears,
  }),
  /** Takes a component away with its lines. */
  z.object({ edit: z.literal("remove-component"), componentId: z.string() }),
  /** The text read again: its lines and components in place of those that stand, everything else as it is. */
  z.object({
    edit: z.literal("read-again"),
    measures: measuresSchema,
    lines: z.array(formulaLineSchema),
    components: z.array(formulaComponentSchema).optional(),
    said: saidSchema.optional(),
    pasted: pastedSchema.optional(),
  }),
  z.object({ edit: z.literal("scale"), factor: z.number().positive() }),
  z.object({ edit: z.literal("set-vessel"), set: vesselSchema.partial(), whole: z.boolean().optional(), clear: clears }),
  z.object({ edit: z.literal("set-oven"), set: ovenSchema.partial(), clear: clears }),
  z.object({ edit: z.literal("set-process"), set: processSchema, clear: clears }),
  z.object({ edit: z.literal("what-if"), change: whatIfSchema }),
  z.object({
    edit: z.literal("take-changes"),
    title: z.string(),
    changes: z.array(z.object({ ingredientId: z.string(), fromG: z.number(), toG: z.number(), component: z.string().optional() })),
  }),
  z.object({ edit: z.literal("take-pan"), vessel: vesselSchema, celsius: z.number(), factor: z.number().positive() }),
  z.object({ edit: z.literal("take-version"), formula: formulaSchema, number: z.number().int() }),
  z.object({ edit: z.literal("add-part"), part: partSchema }),
  z.object({ edit: z.literal("set-part"), partId, set: partSchema.omit({ id: true, additions: true }).partial() }),
  z.object({ edit: z.literal("remove-part"), partId }),
  z.object({ edit: z.literal("add-to-part"), partId, line: formulaLineSchema }),
  z.object({ edit: z.literal("remove-from-part"), partId, lineId }),
]);
export type Edit = z.infer<typeof editSchema>;
/** The field of the formula's schema at fault, by its path such as `lines.3.note`, with what would be right. Empty when it can be saved. */
export function faultsIn(formula: Formula): Map<string, string> {
  const parsed = formulaSchema.safeParse(formula);
  return new Map(parsed.success ? [] : parsed.error.issues.map((issue) => [issue.path.join("."), issue.message]));
}
