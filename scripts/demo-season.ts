/**
 * Writes the demo's season: a taller pear loaf for the first boat, five bakes done in the kiosk, three to come. The bakes come from the simulation with a
 * truth that the application is not told: an oven hotter than its profile says, and pear that weighs the crumb down more than the computer thinks. Run it
 * again when the pear loaf of the demo changes: node scripts/bundled.mjs demo-season
 */
import { writeFileSync } from "node:fs";
import { bareKitchen, builtInShelf, formulaAt, type Kitchen, normalFrom, openFormula, predictedFor, scales, type Season, seasonNow, seasonSchema, seeded } from "@uprise/core"; // prettier-ignore
import { bakeOf, coreAtOut } from "@uprise/core/src/trial/outcome";
import { seasonOfDemo } from "../apps/server/src/demo/seasons";

const KIOSK = { biasK: 14, swingK: 8, trueK: 23 };
const kitchen: Kitchen = { ...bareKitchen, ovens: new Map([["kiosk-oven", KIOSK]]) };
const random = seeded(77);
const normal = normalFrom(random);
/** mm that the loaf stands lower with every 10 g of pear more than now, beyond what the computer says. */
const PEAR_MM = -0.55;
/** Days ago, by block: two bakes on a day. */
const DAYS = [11, 9, 7];
const NOTES = [
  "The loaf as it is. Everything is held against it.",
  "The same once more: how far do two of one kind differ?",
  "Little pear and much kefir, little powder. Lighter than it looks.",
  "Heavy with pear, a wet line under the pieces.",
  "Little of both, more powder. Stands well; the slice holds.",
];

const round = (value: number, step = 1): number => Math.round(value / step) * step;
const asked: Season = seasonSchema.parse({ ...seasonOfDemo, runs: [] });
const state = seasonNow({ season: asked, trials: [], tastings: [], packets: [] }, kitchen);
const pearNow = Number(state.now.settings["pear"]);
const runs = state.proposed.map(({ id, settings, kind, block, why }) => ({ id, settings, kind, block, why }));
const trials = runs.map((run, k) => {
  const formula = formulaAt(asked, run.settings);
  const input = openFormula(formula, kitchen);
  const planned = bakeOf(input, builtInShelf);
  const minutes = round(planned.simulation.minutes * 0.9 + 0.5 * normal());
  const real = { ...input, oven: { ...formula.oven, biasK: KIOSK.trueK, swingK: KIOSK.swingK } };
  const baked = bakeOf(real, builtInShelf, minutes);
  const { cooledMm, loss } = baked.simulation;
  const { massG } = baked.analysis.batch;
  const by = (PEAR_MM * (Number(run.settings["pear"]) - pearNow)) / 10;
  const at = (share: number): number => round((cooledMm.edge + share * (cooledMm.middle + by - cooledMm.edge)) * (1 + 0.012 * normal()));
  const wet = Number(run.settings["pear"]) > pearNow + 20;
  const scores = Object.fromEntries(scales.map(({ id, usual }) => [id, id === "moistness" && wet ? 4 : id === "gummy" && wet ? 1 : usual]));
  const predicted = predictedFor(input);
  const tidy = (value: number): number => round(value, 0.1);
  return {
    id: `season-${k + 1}`,
    run: run.id,
    daysAgo: DAYS[run.block] ?? 6,
    title: `Pear loaf, season bake ${k + 1}`,
    measured: { minutes, massInG: round(massG), massOutG: round(massG * (1 - loss.oven / 100)), coreC: round(coreAtOut(baked.simulation)), heightsMm: [at(0), at(0.75), at(1), at(0.75), at(0)] },
    scores,
    notes: NOTES[k] ?? "",
    predicted: { ...predicted, minutes: tidy(predicted.minutes), coreC: tidy(predicted.coreC), lossPercent: tidy(predicted.lossPercent), heightsMm: predicted.heightsMm.map(tidy), widthMm: tidy(predicted.widthMm), ph: tidy(predicted.ph) },
  };
}); // prettier-ignore
writeFileSync("apps/server/src/demo/season.json", `${JSON.stringify({ runs, trials }, null, 2)}\n`);
for (const [k, run] of runs.entries()) console.log(run.id, run.kind, run.block, JSON.stringify(run.settings), JSON.stringify(trials[k]?.measured.heightsMm), run.why); // prettier-ignore
