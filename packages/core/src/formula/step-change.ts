import type { StepChange } from "./step-change-schema";

/** What a step takes hold of while it lasts. */
export const stepNeeds = ["hands", "mixer", "oven", "nothing"] as const;
export const MOST_STEP_CHANGES = 40;
export const isOwnStep = (change: StepChange): change is Extract<StepChange, { own: string }> => "own" in change;
