import { z } from "zod";
import { writtenKinds } from "./written";

/**
 * One step of the recipe's own method: its words without the amounts that stand on the lines it takes, the ids of those lines, how long it says
 * that it takes (min). Lines that are gone are passed over, lines that came later find their place by what they are.
 */
export const writtenStepSchema = z.object({
  kind: z.enum(writtenKinds),
  words: z.string().trim().min(1).max(500),
  lines: z.array(z.string().min(1).max(64)).max(200),
  minutes: z.object({ low: z.number().min(0.5).max(2880), high: z.number().min(0.5).max(2880) }).optional(),
  /** It waits in the cold, where little happens. */
  cold: z.literal(true).optional(),
});
export type WrittenStep = z.infer<typeof writtenStepSchema>;
