import { z } from "zod";

/** An uncertain number: the lowest and highest plausible value and the most likely one. */
export const rangeSchema = z.object({ low: z.number(), mid: z.number(), high: z.number() });
export type Range = z.infer<typeof rangeSchema>;
