import { ovenLimits } from "../pantry/vessel-words";
import type { Vessel } from "../pantry/vessel-schema";
import type { AnalyseInput } from "./open";
import { scaledWhole } from "./scale";
import type { BakeStage } from "./stage-schema";
import type { WhatIf } from "./what-if-schema";

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
