import { z } from "zod";
import { ovenModes } from "../pantry/vessel-words";
import { altitudeSchema } from "../pantry/vessel-schema";

/** What is changed in thought; what is left out stays as it is. */
export const whatIfSchema = z.object({
  warmerK: z.number().min(-260).max(260).optional(),
  fuller: z.number().positive().max(10).optional(),
  mode: z.enum(ovenModes).optional(),
  altitudeM: altitudeSchema.optional(),
  standMinutes: z.number().min(0).max(2880).optional(),
  material: z.enum(["light-metal", "dark-steel", "glass", "cast-iron"]).optional(),
});
export type WhatIf = z.infer<typeof whatIfSchema>;
