import { z } from "zod";

/** Gas released and crumb set over one time axis, from wetting through the bench to the end of the bake. */
export const raceSchema = z.object({
  /** Minutes from the oven door; negative on the bench. */
  minutes: z.array(z.number()),
  /** The core, °C. */
  coreC: z.array(z.number()),
  /** Share of all the gas that this formula ever gives off. */
  gas: z.array(z.number()),
  /** Share of the crumb that has set. */
  set: z.array(z.number()),
  /** Share of the gas that came before half of the crumb had set, and after. */
  beforeSet: z.number(),
});
export type Race = z.infer<typeof raceSchema>;
