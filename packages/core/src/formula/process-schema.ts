import { z } from "zod";
import { bakeStagesSchema } from "./stage-schema";
import { MOST_STEP_CHANGES } from "./step-change";
import { stepChangeSchema } from "./step-change-schema";
import { elsewheres } from "../measure/elsewhere-words";
import { methods, coolings } from "./process";
import { MOST_WRITTEN } from "./written";
import { writtenStepSchema } from "./written-schema";

/** How the batter is made: method, minutes it stands before the oven, temperatures of batter and kitchen in °C. */
export const processSchema = z.object({
  method: z.enum(methods).optional(),
  restMinutes: z.number().min(0).max(2880).optional(),
  batterC: z.number().min(0).max(60).optional(),
  kitchenC: z.number().min(0).max(50).optional(),
  /** What the bake is judged by beside its inside, where it is not what its kind is: only the inside, a golden top, rim and top, its edge, both faces, dry. */
  doneWhen: z.enum(["inside", "crust", "top", "rim", "edge", "faces", "snaps"]).optional(),
  /** How it cools: turned out after a while where nothing is said, in its tin to the end, or upside down in it. */
  cooling: z.enum(coolings).optional(),
  /** So many minutes in its tin before it is turned out, where they are said. */
  tinMinutes: z.number().min(0).max(720).optional(),
  /** It is cooked by a heat that is not computed here: minutes, core and crust are then those of an oven, and it is said. */
  elsewhere: z.enum(elsewheres).optional(),
  /** The stages of the bake, where it is not one in one oven until it is done. */
  stages: bakeStagesSchema.optional(),
  /** The steps of the recipe's own method, in its order; absent, they follow from method, foods and pan. */
  written: z.array(writtenStepSchema).max(MOST_WRITTEN).optional(),
  /** What the baker changed of the steps that are derived. */
  steps: z.array(stepChangeSchema).max(MOST_STEP_CHANGES).optional(),
});
export type Process = z.infer<typeof processSchema>;
