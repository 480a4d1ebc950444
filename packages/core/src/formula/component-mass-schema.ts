import { z } from "zod";
import { componentPlaces, componentRoles } from "../measure/reading";

export const componentMassSchema = z.object({
  id: z.string(),
  name: z.string(),
  role: z.enum(componentRoles),
  place: z.enum(["batter", ...componentPlaces]),
  /** As it is used: cooked where it is cooked, g. */
  massG: z.number(),
  /** As it is weighed in, g. */
  weighedG: z.number(),
  waterG: z.number(),
  fatG: z.number(),
  sugarG: z.number(),
  proteinG: z.number(),
  sodiumMg: z.number(),
  /** Where the cooked mass that was said is less than what is no water: the least that it can be, g. */
  leastG: z.number().optional(),
});
export type ComponentMass = z.infer<typeof componentMassSchema>;
