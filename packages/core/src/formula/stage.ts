import type { BakeStage } from "./stage-schema";

/** The middle of what a stage takes, min; null where it waits for something. */
export const stageMinutes = ({ minutes }: Pick<BakeStage, "minutes">): number | null =>
  minutes === undefined ? null : typeof minutes === "number" ? minutes : (minutes.low + minutes.high) / 2;
