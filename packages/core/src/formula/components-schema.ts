import { z } from "zod";
import { componentPlaces, componentRoles } from "../measure/reading";

export const formulaComponentSchema = z.object({
  id: z.string().min(1).max(64),
  name: z.string().trim().min(1, { error: "A component needs a name, such as “pear filling”." }).max(80),
  role: z.enum(componentRoles),
  /** Where it is in the bake; absent, what is usual for its role. */
  place: z.enum(componentPlaces).optional(),
  /** What it weighs once it is cooked, g; absent, it is used as it is weighed. */
  cookedG: z.number().positive({ error: "More than 0 g; what it weighs once it is cooked." }).max(1_000_000).optional(),
  /** How warm it is when it meets the batter, °C; absent, as the kitchen. */
  celsius: z.number().min(-25, { error: "From −25 to 110 °C." }).max(110, { error: "From −25 to 110 °C." }).optional(),
});
export type FormulaComponent = z.infer<typeof formulaComponentSchema>;
export const openLineSchema = z.object({
  name: z.string(),
  component: z.string().optional(),
  /** It may be a flour, the liquid or a leavener of the batter: until it is closed nothing is final. */
  matters: z.boolean(),
});
export type OpenLine = z.infer<typeof openLineSchema>;
