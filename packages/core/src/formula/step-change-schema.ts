import { z } from "zod";
import { MOST_STEP_WORDS } from "./step-change";

const words = z
  .string()
  .trim()
  .min(1, { error: "Say in a few words what is done." })
  .max(MOST_STEP_WORDS, { error: `A step of up to ${MOST_STEP_WORDS} characters would be right.` });
const minutes = z
  .number({ error: "A step's minutes are a number, such as 5." })
  .min(0.5, { error: "A step lasts from half a minute to two days (2880 min)." })
  .max(2880, { error: "A step lasts from half a minute to two days (2880 min)." });
const stepId = z.string().min(1).max(80);
/**
 * What the baker changes of the steps that are derived from a formula: one said otherwise, one left out, one of the baker's own put after another.
 * Kept as changes, so that everything else goes on following the formula.
 */
export const stepChangeSchema = z.union([
  z.object({ step: stepId, words: words.optional(), minutes: minutes.optional(), off: z.boolean().optional() }),
  z.object({ own: stepId, follows: stepId, words, minutes, needs: z.enum(["hands", "mixer", "nothing"]) }),
]);
export type StepChange = z.infer<typeof stepChangeSchema>;
