import { z } from "zod";
import { symptomIds } from "./symptoms";

/** What was seen, with how much of it: 0 looked for and not there, 1 a little, 2 plain, 3 strong. */
export const seenSchema = z.object({
  symptomId: z.enum(symptomIds, { error: `A symptom is one of: ${symptomIds.join(", ")}.` }),
  degree: z.number().int().min(0).max(3, { error: "A degree from 0 (looked for, not there) to 3 (strong) would be right." }),
});
export type Seen = z.infer<typeof seenSchema>;
