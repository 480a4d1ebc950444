import { z } from "zod";
import { stepNeeds } from "../formula/step-change";
import { rangeSchema } from "../measure/range-schema";
import { stepKinds } from "./work-step";

/** One thing that is done: the list that sheet, plan, counter, calendar and paper read. Minutes; ids are stable as long as the formula is of one kind. */
export const workStepSchema = z.object({
  id: z.string(),
  kind: z.enum(stepKinds),
  words: z.string(),
  minutes: rangeSchema,
  needs: z.enum(stepNeeds),
  /** Ids of steps that must be over before it begins. */
  after: z.array(z.string()),
  /** The longest it may begin after another one is over, and why: a leavened batter does not wait. */
  within: z.object({ of: z.string(), minutes: z.number(), why: z.string() }).optional(),
  /** It is done while it bakes, so many minutes after the oven door. */
  at: z.number().optional(),
  /** It may be done the day before. */
  ahead: z.boolean().optional(),
  /** Something that can burn a hand. */
  hot: z.boolean().optional(),
  /** What is weighed for it. */
  lines: z.array(z.object({ ingredientId: z.string(), grams: z.number() })),
});
export type WorkStep = z.infer<typeof workStepSchema>;
