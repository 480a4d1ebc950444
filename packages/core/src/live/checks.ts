import type { Analysis } from "../balance/readings";
import type { Consistency } from "../body/consistency";

/** How a batter falls from the spoon, thin to thick, as it is noted at the counter (0 to 3). */
export const falls = ["runs", "ribbons", "drops in lumps", "holds"] as const;

/** How a batter of each word falls; kitchen knowledge, C. */
const FALLS_AS: Record<Consistency, number> = {
  pourable: 0,
  spoonable: 1,
  scoopable: 2,
  "soft-dough": 3,
  "firm-dough": 3,
  crumbly: 3,
};

/** A cup weighed at the counter tells density within so much, as a share. */
const WEIGHED_WITHIN = 0.05;

/** What was noted of a batter against what was thought of it. */
export interface Checked {
  /** Steps thicker (above 0) or thinner than thought; null where nothing was noted. */
  thicker: number | null;
  /** % heavier (above 0) or lighter than thought; 0 within what a cup tells, null where nothing was weighed. */
  heavierPercent: number | null;
}

export function checkedAgainst(
  { body }: Pick<Analysis, "body">,
  fell: number | undefined,
  densityGPerMl: number | undefined,
): Checked {
  const heavier = densityGPerMl === undefined ? null : densityGPerMl / body.densityGPerMl - 1;
  return {
    thicker: fell === undefined ? null : fell - FALLS_AS[body.consistency],
    heavierPercent: heavier === null ? null : Math.abs(heavier) < WEIGHED_WITHIN ? 0 : Math.round(100 * heavier),
  };
}
