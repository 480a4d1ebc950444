import { z } from "zod";
import { findingIds } from "./finding";

export const findingSchema = z.object({
  id: z.enum(findingIds),
  severity: z.enum(["stop", "caution", "note"]),
  message: z.string(),
  why: z.string(),
  fix: z.string().optional(),
  ingredientIds: z.array(z.string()),
  /** It stands on a formula in which something that matters is not weighed yet. */
  provisional: z.boolean().optional(),
});
export type Finding = z.infer<typeof findingSchema>;
