import { type Formula, type Trial, trialSchema } from "@uprise/core";
import { demoFormulas } from "./formulas";
import table from "./trials.json";

/** A formula baked in an oven of the kitchen, its dial so much higher. */
export const inOven = (formula: Formula, ovenId: string, byK: number): Formula => ({
  ...formula,
  oven: { ...formula.oven, ovenId, celsius: formula.oven.celsius + byK },
});

/** A formula with other amounts of some ingredients, g. */
export const withAmounts = (formula: Formula, amounts: Readonly<Record<string, number>>): Formula => ({
  ...formula,
  lines: formula.lines.map((line) => {
    const grams = amounts[line.ingredientId ?? ""];
    return grams === undefined ? line : { ...line, grams: { low: grams, mid: grams, high: grams } };
  }),
});

const DAY_MS = 86_400_000;
/** The kiosk bakes at six in the morning. */
const HOUR_MS = 3_600_000;

/** Six weeks of the kiosk, ending yesterday: made by `node scripts/bundled.mjs demo-trials`. */
export function demoTrials(today: Date): { id: string; trial: Trial }[] {
  const midnight = Math.floor(today.getTime() / DAY_MS) * DAY_MS;
  return (table as unknown as DemoTrial[]).flatMap(({ id, formulaId, daysAgo, celsius, amounts, ...trial }) => {
    const base = demoFormulas.find((one) => one.id === formulaId)?.formula;
    if (!base) return [];
    const formula = withAmounts(inOven(base, trial.ovenId, celsius), amounts);
    const at = new Date(midnight - daysAgo * DAY_MS + 6 * HOUR_MS).toISOString();
    return [{ id, trial: trialSchema.parse({ ...trial, formulaId, formulaVersion: 1, formula, at, photos: [] }) }];
  });
}

interface DemoTrial {
  id: string;
  formulaId: string;
  daysAgo: number;
  ovenId: string;
  celsius: number;
  amounts: Record<string, number>;
}
