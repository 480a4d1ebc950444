import { formulaAt, type Season, seasonSchema, type Trial, trialSchema } from "@uprise/core";
import { demoFormulas } from "./formulas";
import made from "./season.json";
import { inOven, withAmounts } from "./trials";

const base = demoFormulas.find(({ id }) => id === "pear-loaf")?.formula;
if (!base) throw new Error("the demo has no pear loaf");

/** What is wished of the pear loaf, as it was begun: with less sugar, in the kiosk's oven, its dial ten lower. */
export const seasonOfDemo = {
  title: "A taller pear loaf for the first boat",
  formulaId: "pear-loaf",
  formulaVersion: 1,
  formula: withAmounts(inOven(base, "kiosk-oven", -10), { "dark-brown-sugar": 95 }),
  goals: [
    { quality: "height", wish: "more" },
    { quality: "moistness", keep: { low: 0.7 } },
  ],
  factors: [
    { id: "pear", kind: "amount", ingredientId: "pear", name: "Pear", low: 130, high: 210 },
    { id: "kefir", kind: "amount", ingredientId: "kefir", name: "Kefir", low: 210, high: 250 },
    { id: "powder", kind: "amount", ingredientId: "powder-aluminium-free", name: "Baking powder", low: 6, high: 10 },
  ],
  bakes: 8,
  blocks: { size: 2, by: "day" },
  seed: 4,
  notes: "The first boat's breakfast is cut thick: a loaf that stands a finger higher would give two slices more.",
};

const DAY_MS = 86_400_000;
/** Two bakes before the hatch opens. */
const HOUR_MS = 3_600_000;

/** The season with its five bakes, as they stand in the log: made by `node scripts/bundled.mjs demo-season`. */
export function demoSeason(today: Date): { season: Season; trials: { id: string; trial: Trial }[] } {
  const midnight = Math.floor(today.getTime() / DAY_MS) * DAY_MS;
  const { runs, trials } = made as unknown as { runs: Season["runs"]; trials: MadeTrial[] };
  const since = new Date(midnight - Math.max(...trials.map(({ daysAgo }) => daysAgo)) * DAY_MS).toISOString();
  const season = seasonSchema.parse({ ...seasonOfDemo, runs, since });
  return {
    season,
    trials: trials.map(({ id, run, daysAgo, ...trial }, k) => {
      const settings = runs.find((one) => one.id === run)?.settings ?? {};
      const at = new Date(midnight - daysAgo * DAY_MS + (6 + 2 * (k % 2)) * HOUR_MS).toISOString();
      const formula = { ...formulaAt(season, settings) };
      return { id, trial: trialSchema.parse({ ...trial, formulaId: "pear-loaf", formulaVersion: 1, formula, at, ovenId: "kiosk-oven", seen: [], photos: [], tags: ["season"] }) }; // prettier-ignore
    }),
  };
}

interface MadeTrial {
  id: string;
  run: string;
  daysAgo: number;
  title: string;
}
