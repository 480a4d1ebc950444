/** What a step takes hold of while it lasts. */
export const stepNeeds = ["hands", "mixer", "oven", "nothing"] as const;
export const MOST_STEP_CHANGES = 40;
export const MOST_STEP_WORDS = 600;
/** Whether a change of steps puts one of the baker's own among them. */
export const isOwnStep = <C extends object>(change: C): change is Extract<C, { own: string }> => "own" in change;
