import { z } from "zod";
import { altitudeSchema, ovenLimits, ovenModes, type Vessel } from "../pantry/vessel";
import type { AnalyseInput } from "./open";
import { scaledWhole } from "./scale";
import type { BakeStage } from "./stage";

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

const inMaterial = (vessel: Vessel, material: NonNullable<WhatIf["material"]>): Vessel => ({
  ...vessel,
  material,
  // Iron is used hot; any other pan goes in cold.
  preheated: material === "cast-iron",
});

const withinOven = (celsius: number): number => Math.min(ovenLimits.most, Math.max(ovenLimits.least, celsius));

const warmer = (stage: BakeStage, by: number): BakeStage =>
  stage.celsius === undefined ? stage : { ...stage, celsius: withinOven(stage.celsius + by) };

/** An input, or a formula, with a change in thought taken: heat kept within what an oven does, the rest as it was. */
export function withWhatIf<T extends AnalyseInput>(input: T, change: WhatIf): T {
  const { warmerK = 0, fuller = 1, mode, altitudeM, standMinutes, material } = change;
  const { lines, components, oven, vessel } = input;
  const stages = input.process?.stages;
  return {
    ...input,
    ...(lines && fuller !== 1 ? scaledWhole({ lines, components }, fuller) : {}),
    ...(oven
      ? {
          oven: {
            ...oven,
            celsius: withinOven(oven.celsius + warmerK),
            ...(mode === undefined ? {} : { mode }),
            ...(altitudeM === undefined ? {} : { altitudeM }),
          },
        }
      : {}),
    ...(vessel && material !== undefined ? { vessel: inMaterial(vessel, material) } : {}),
    ...(standMinutes === undefined && !(stages && warmerK !== 0)
      ? {}
      : {
          process: {
            ...input.process,
            ...(standMinutes === undefined ? {} : { restMinutes: standMinutes }),
            ...(stages ? { stages: stages.map((stage) => warmer(stage, warmerK)) } : {}),
          },
        }),
  };
}
