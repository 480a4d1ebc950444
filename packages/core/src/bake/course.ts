import { stageMinutes } from "../formula/stage";
import type { Heat } from "../formula/stage-kinds";
import type { BakeStage } from "../formula/stage-schema";
import type { Oven } from "../pantry/vessel-schema";

/** One stage as it is baked. °C and s. */
export interface Leg {
  heat: Heat;
  celsius: number;
  /** s it lasts, or null; what it waits for, or null. With neither it goes on until the bake is done. */
  lastsS: number | null;
  until: BakeStage["until"] | null;
  covered: boolean;
  free: boolean;
  turned: boolean;
  topped: boolean;
}

/** A plate at medium heat, where nothing says how hot it is, °C. */
const PLATE_C = 170;

/** The stages of a bake; one without any is one stage in its oven until it is done. */
export function courseOf(stages: readonly BakeStage[] | undefined, oven: Oven): Leg[] {
  const mode = oven.mode ?? "still";
  if (!stages || stages.length === 0)
    return [
      { heat: mode, celsius: oven.celsius, lastsS: null, until: null, covered: false, free: false, turned: false, topped: false },
    ];
  let out = false;
  return stages.map((stage) => {
    const heat = stage.mode ?? mode;
    // Once out of its tin it does not go back.
    out ||= stage.free === true;
    const minutes = stageMinutes(stage);
    const own = heat === "hob" && mode !== "hob" ? PLATE_C : oven.celsius;
    return {
      heat,
      celsius: stage.celsius ?? own,
      lastsS: minutes === null ? null : minutes * 60,
      until: minutes === null ? (stage.until ?? null) : null,
      covered: stage.covered === true,
      free: out,
      turned: stage.turned === true,
      topped: stage.topped === true,
    };
  });
}
