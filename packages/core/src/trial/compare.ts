import { type Difference, differencesOf } from "../formula/differences";
import { lossOf, middleOf, profileOfHeights } from "./measured";
import { worthOf } from "./scales";
import type { Trial } from "./trial";

/** One reading of trials side by side. */
export interface Row {
  id: string;
  name: string;
  unit: string;
  values: (number | null)[];
  predicted: (number | null)[];
  digits: number;
}

/** What was measured and scored of several trials, each row beside what was predicted. */
export function compared(trials: readonly Trial[]): Row[] {
  const row = (id: string, name: string, unit: string, digits: number, of: (trial: Trial) => number | null | undefined, predicted: (trial: Trial) => number | null | undefined = () => null): Row => ({
    id, name, unit, digits, values: trials.map((trial) => of(trial) ?? null), predicted: trials.map((trial) => predicted(trial) ?? null),
  });
  const profile = (trial: Trial) => (trial.measured.heightsMm ? profileOfHeights(trial.measured.heightsMm) : null);
  return [
    row("worth", "Score of 100", "", 0, (trial) => { const worth = worthOf(trial.scores, trial.seen); return worth === null ? null : 100 * worth; }),
    row("minutes", "In the oven", "min", 0, ({ measured }) => measured.minutes, ({ predicted }) => predicted?.minutes),
    row("core", "Core", "°C", 0, ({ measured }) => measured.coreC, ({ predicted }) => predicted?.coreC),
    row("loss", "Loss", "%", 1, ({ measured }) => lossOf(measured), ({ predicted }) => predicted?.lossPercent),
    row("height", "Middle", "mm", 0, ({ measured }) => middleOf(measured), ({ predicted }) => predicted?.heightsMm[2]),
    row("volumeIndex", "Volume index", "mm", 0, (trial) => profile(trial)?.volumeIndex),
    row("symmetryIndex", "Symmetry", "mm", 0, (trial) => profile(trial)?.symmetryIndex),
    row("uniformityIndex", "Uniformity", "mm", 0, (trial) => profile(trial)?.uniformityIndex),
    row("density", "Density", "g/mL", 2, ({ measured }) => measured.densityGPerMl),
    row("ph", "Crumb pH", "", 1, ({ measured }) => measured.crumbPh, ({ predicted }) => predicted?.ph),
  ].filter(({ values }) => values.some((one) => one !== null));
} // prettier-ignore

/** What was changed from one trial to the next: formula, process, vessel and oven, in words. */
export const changedBetween = (before: Trial, after: Trial, nameOf: (id: string) => string): Difference[] =>
  differencesOf(before.formula, after.formula, nameOf);
