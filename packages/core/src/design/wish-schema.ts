import { z } from "zod";
import { consistencies } from "../body/consistency";
import { kindSchema } from "../formula/kinds-schema";
import { allergenSchema } from "../pantry/ingredient-schema";
import { ovenSchema, vesselSchema } from "../pantry/vessel-schema";
import { lifts } from "./wish";

const knob = (what: string): z.ZodOptional<z.ZodNumber> =>
  z
    .number({ error: `${what} is a number from 0 to 1, such as 0.5.` })
    .min(0, { error: `${what} is from 0 to 1; 0.5 is usual.` })
    .max(1, { error: `${what} is from 0 to 1; 0.5 is usual.` })
    .optional();
const ids = z.array(z.string().min(1).max(80)).max(400);
/** What a baker stands before the shelf with. What is left out is as its kind has it; 0.5 on a slider is usual. */
export const wishSchema = z.object({
  kind: kindSchema,
  /** `savoury` has no sugar; `eggless` no egg. */
  variant: z.enum(["plain", "savoury", "eggless"]).optional(),
  vessel: vesselSchema.optional(),
  oven: ovenSchema.optional(),
  /** So many pieces (cups, buns) of so many grams baked; without them the pan is filled as it likes to be. */
  pieces: z.number().int().min(1).max(500).optional(),
  pieceG: z.number().min(5).max(5000).optional(),
  /** So much of it that the crown comes to stand just over the rim. */
  toRim: z.boolean().optional(),
  /** What is on hand; absent, a usual shelf. Water and salt always are. */
  have: ids.optional(),
  /** Flours that are rather taken than others. */
  prefer: ids.optional(),
  useUp: z
    .array(z.object({ ingredientId: z.string().min(1).max(80), grams: z.number().positive().max(20_000) }))
    .max(12)
    .optional(),
  avoid: z.array(allergenSchema).optional(),
  lift: z.enum(lifts).optional(),
  binder: z.string().min(1).max(80).optional(),
  rich: knob("Rich"),
  sweet: knob("Sweet"),
  sour: knob("Sour"),
  tall: knob("Tall"),
  moist: knob("Moist"),
  body: z.enum(consistencies).optional(),
});
// prettier-ignore
export type Wish = z.infer<typeof wishSchema>;
