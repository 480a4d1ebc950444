import { ovenModes } from "../pantry/vessel-words";

/** What heats a stage: an oven, a hob, a grill from above; `counter` stands in the kitchen between two of them. */
export const heats = [...ovenModes, "grill", "counter"] as const;
export type Heat = (typeof heats)[number];
/** What a stage may wait for in place of minutes: the inside at its target, the colour its kind is judged by, a dry top. */
export const untils = ["set", "golden", "dry"] as const;
export const celsiusWords = "A stage's temperature is in °C, of the oven or of the plate; from 60 to 320 would be right.";
export const MOST_STAGES = 8;
