import { z } from "zod";
import { fillBehaviours } from "../measure/filling";
import { rangeSchema } from "../measure/range-schema";
import { measuresSchema } from "../measure/units-schema";
import { families, allergens, leaveningAcidIds, solutionAcidIds, powderIds, sources } from "./ingredient-words";

// prettier-ignore
export const allergenSchema = z.enum(allergens);
export type Allergen = z.infer<typeof allergenSchema>;
const percent = z.number().min(0).max(100);
/**
 * One thing on the shelf. Composition in % by mass of the edible part; density in g/mL spooned and levelled; `absorbs`
 * in g water per g within ten minutes and after hours; `acidity` in meq NaHCO3 per 100 g titrated to pH 8.2 (negative
 * for alkaline things); `acids` in mmol per 100 g; `buffer` in meq per 100 g and pH unit, where it is known apart from
 * the acidity; `carbonation` in mmol CO2 per 100 g in the closed bottle; `xanthanEquivalent` in g xanthan that 100 g
 * bind like; `gumShare` what thickens the syrup at once, as a share of xanthan's effect; `holdsWater` in g water per g of dry
 * solids that a purée keeps to itself.
 */
export const ingredientSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string().min(1).max(120),
  aliases: z.array(z.string().min(1)),
  family: z.enum(families),
  behaviour: z.enum(fillBehaviours),
  per100g: z.object({
    water: percent,
    fat: percent,
    protein: percent,
    sugars: percent,
    starch: percent,
    fibre: percent,
    ash: percent,
    other: percent.optional(),
  }),
  gPerMl: rangeSchema,
  absorbs: z.object({ fast: z.number().min(0), slow: z.number().min(0) }).optional(),
  holdsWater: z.number().min(0).optional(),
  ph: z.number().min(1).max(13).optional(),
  buffer: z.number().min(0).optional(),
  acidity: rangeSchema.extend({ confidence: z.enum(["A", "B", "C"]) }).optional(),
  acids: z.partialRecord(z.enum(solutionAcidIds), z.number().positive()).optional(),
  leavening: z
    .object({
      soda: z.number().positive().max(1).optional(),
      powder: z.enum(powderIds).optional(),
      /** The share of the ingredient that is that powder; 1 when it is the powder itself. */
      share: z.number().positive().max(1).optional(),
      acids: z.partialRecord(z.enum(leaveningAcidIds), z.number().positive()).optional(),
    })
    .optional(),
  carbonation: rangeSchema.optional(),
  sodiumMg: z.number().min(0).optional(),
  gelatinisationC: z.number().optional(),
  xanthanEquivalent: z.number().min(0).optional(),
  gumShare: z.number().min(0).max(1).optional(),
  pieces: z.array(z.object({ size: z.string(), grams: rangeSchema, measures: z.array(measuresSchema).optional() })).optional(),
  canG: z.number().positive().optional(),
  packetG: z.number().positive().optional(),
  /** Where a fat begins to smoke, °C; refining moves it by 20 K and more. */
  smokeC: z.number().min(90).max(280).optional(),
  /** Whether a fat is solid or liquid in the bowl. */
  state: z.enum(["solid", "liquid"]).optional(),
  pigments: z.array(z.enum(["anthocyanin", "chlorogenic", "betalain", "cocoa"])).optional(),
  /** What a bought blend is made of, in the order of its label. */
  contains: z.array(z.string()).optional(),
  allergens: z.array(allergenSchema),
  gluten: z.enum(["free", "check", "oats", "contains"]),
  source: z.enum(sources),
  confidence: z.enum(["A", "B", "C"]),
});
export type Ingredient = z.infer<typeof ingredientSchema>;
