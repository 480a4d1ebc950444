/**
 * Writes the demo's log: six weeks of the pier kiosk, made up by the simulation with a truth that the application is not told (its oven is hotter than
 * its profile says, a tub of powder fades, things go wrong). Run it again when the formulas of the demo change: node scripts/bundled.mjs demo-trials
 */
import { writeFileSync } from "node:fs";
import { builtInShelf, causeOf, type Formula, type Kitchen, bareKitchen, normalFrom, openFormula, predictedFor, scales, type Scores, seeded, type Seen, seenFrom, symptomIds } from "@uprise/core"; // prettier-ignore
import { appearanceOf } from "@uprise/core/src/trial/appearance";
import { cluesOf } from "@uprise/core/src/trial/clues";
import { deviated } from "@uprise/core/src/trial/deviation";
import { gramsIn, scaledGroup } from "@uprise/core/src/trial/groups";
import { bakeOf, coreAtOut } from "@uprise/core/src/trial/outcome";
import { demoFormulas } from "../apps/server/src/demo/formulas";
import { inOven, withAmounts } from "../apps/server/src/demo/trials";

const KIOSK = { biasK: 14, swingK: 8, trueK: 23 };
const HOME = { biasK: 0, swingK: 6, trueK: 1 };
const FADES_A_MONTH = 0.075;
const FRESH_SINCE_DAYS = 4;
const kitchen: Kitchen = { ...bareKitchen, ovens: new Map([["kiosk-oven", KIOSK], ["home-oven", HOME]]) }; // prettier-ignore
const random = seeded(1126);
const normal = normalFrom(random);

interface Told { id: string; formulaId: string; daysAgo: number; title: string; oven: "kiosk-oven" | "home-oven"; cause?: string; severity?: number; amounts?: Record<string, number>; celsius?: number; share?: number; notes: string; tags?: string[]; measured?: "all" | "some" } // prettier-ignore
const told: Told[] = [
  { id: "pear-1", formulaId: "pear-loaf", daysAgo: 42, title: "Pear loaf, as written", oven: "home-oven", notes: "First of the season, at home. Good all through.", measured: "all" },
  { id: "pear-2", formulaId: "pear-loaf", daysAgo: 40, title: "Pear loaf, first in the kiosk", oven: "kiosk-oven", notes: "Same batter. Dark before it was done.", measured: "all" },
  { id: "muffins-1", formulaId: "beet-muffins", daysAgo: 38, title: "Beet muffins, two dozen", oven: "kiosk-oven", notes: "" },
  { id: "biscuits-1", formulaId: "chive-biscuits", daysAgo: 36, title: "Chive biscuits", oven: "kiosk-oven", notes: "Low for what they were.", measured: "all" },
  { id: "pear-3", formulaId: "pear-loaf", daysAgo: 33, title: "Pear loaf, soapy", oven: "kiosk-oven", cause: "too-much-soda", notes: "Somebody filled the half spoon twice?", tags: ["Saturday"], measured: "all" },
  { id: "scones-1", formulaId: "marmalade-scones", daysAgo: 31, title: "Marmalade scones", oven: "home-oven", share: 1.12, notes: "" },
  { id: "muffins-2", formulaId: "beet-muffins", daysAgo: 29, title: "Beet muffins, left in the tin", oven: "kiosk-oven", cause: "cooled-in-pan", notes: "Ferry came early, they stayed in the tin for an hour.", measured: "all" },
  { id: "pear-4", formulaId: "pear-loaf", daysAgo: 26, title: "Pear loaf, raw in the middle", oven: "kiosk-oven", cause: "taken-early", severity: 1, notes: "Brown on top, so it came out.", tags: ["Saturday"], measured: "all" },
  { id: "skillet-1", formulaId: "millet-skillet", daysAgo: 24, title: "Millet skillet", oven: "kiosk-oven", notes: "", measured: "all" },
  { id: "pear-5", formulaId: "pear-loaf", daysAgo: 22, title: "Pear loaf, less sugar", oven: "home-oven", amounts: { "dark-brown-sugar": 85 }, notes: "Less sweet, nobody missed it.", tags: ["less sugar"], measured: "all" },
  { id: "muffins-3", formulaId: "beet-muffins", daysAgo: 19, title: "Beet muffins, low", oven: "kiosk-oven", notes: "Low and close. The tub of powder is nearly through.", measured: "all" },
  { id: "lentil-1", formulaId: "lentil-skillet", daysAgo: 17, title: "Lentil skillet", oven: "kiosk-oven", notes: "" },
  { id: "biscuits-2", formulaId: "chive-biscuits", daysAgo: 15, title: "Chive biscuits, by the cup", oven: "kiosk-oven", cause: "cup-too-heavy", notes: "The scale's battery was flat: flour by the cup.", tags: ["Saturday"], measured: "all" },
  { id: "muffins-4", formulaId: "beet-muffins", daysAgo: 12, title: "Beet muffins, low again", oven: "kiosk-oven", notes: "Lower still.", measured: "all" },
  { id: "pear-6", formulaId: "pear-loaf", daysAgo: 10, title: "Pear loaf, waited for the oven", oven: "kiosk-oven", cause: "stood-too-long", severity: 1.4, notes: "The oven was full of biscuits; the batter stood.", measured: "all" },
  { id: "scones-2", formulaId: "marmalade-scones", daysAgo: 8, title: "Marmalade scones, soft", oven: "home-oven", cause: "too-much-water", severity: 0.8, notes: "Ran out on the sheet." },
  { id: "pear-7", formulaId: "pear-loaf", daysAgo: 5, title: "Pear loaf, dial 10 lower", oven: "kiosk-oven", amounts: { "dark-brown-sugar": 85 }, celsius: -10, share: 0.87, notes: "Out by the probe. Best from this oven so far.", tags: ["less sugar"], measured: "all" },
  { id: "muffins-5", formulaId: "beet-muffins", daysAgo: 3, title: "Beet muffins, fresh powder", oven: "kiosk-oven", share: 1.08, notes: "New tub. They stand again.", measured: "all" },
  { id: "biscuits-3", formulaId: "chive-biscuits", daysAgo: 2, title: "Chive biscuits, weighed", oven: "kiosk-oven", notes: "", measured: "all" },
  { id: "pear-8", formulaId: "pear-loaf", daysAgo: 1, title: "Pear loaf, for the first boat", oven: "kiosk-oven", amounts: { "dark-brown-sugar": 85 }, celsius: -10, share: 0.92, notes: "As the last one.", tags: ["less sugar", "Saturday"], measured: "all" },
]; // prettier-ignore

const round = (value: number, step = 1): number => Math.round(value / step) * step;

/** The steps of the form's scales that say what was seen; where nothing was, the usual step, sometimes one beside it. */
function scoresOf(seen: ReadonlyMap<string, number>): Scores {
  const out: Scores = {};
  for (const { id, steps, usual } of scales) {
    let best = usual;
    let most = 0;
    for (const [k, { says = [] }] of steps.entries())
      for (const { symptomId, degree } of says) {
        const there = seen.get(symptomId) ?? 0;
        const fits = there >= 0.6 ? there - Math.abs(degree - there) : 0;
        if (fits > most) [best, most] = [k, fits];
      }
    out[id] = best;
  }
  return out;
}

const trials = told.map((one) => {
  const base = demoFormulas.find(({ id }) => id === one.formulaId)?.formula as Formula;
  const formula = withAmounts(inOven(base, one.oven, one.celsius ?? 0), one.amounts ?? {});
  const oven = one.oven === "kiosk-oven" ? KIOSK : HOME;
  const input = openFormula(formula, kitchen);
  const planned = bakeOf(input, builtInShelf);
  const age = one.daysAgo > FRESH_SINCE_DAYS ? 8.4 - one.daysAgo / 30.4 : 0;
  const cause = one.cause === undefined ? null : causeOf(one.cause);
  const made = cause?.deviation ? deviated(input, cause.deviation, builtInShelf, planned.simulation.minutes, one.severity ?? 1) : null;
  const mixed = made?.input ?? input;
  const strength = Math.exp(-FADES_A_MONTH * age);
  const powdered = gramsIn(mixed, "powder", builtInShelf) > 0 ? scaledGroup(mixed, "powder", strength, builtInShelf) : mixed;
  const real = { ...powdered, oven: { ...powdered.oven, celsius: powdered.oven?.celsius ?? 180, biasK: oven.trueK, swingK: oven.swingK } };
  const minutes = Math.max(1, round(planned.simulation.minutes * (made?.minutes ?? 1) * (one.share ?? 1) + 0.5 * normal()));
  const baked = bakeOf(real, builtInShelf, minutes);
  const { bake, lift } = planned.analysis;
  const stood = one.cause === "stood-too-long" ? 62 : round(3 + 4 * random());
  const inPan = one.cause === "cooled-in-pan" ? 65 : round((bake.outOfTinMinutes ?? 5) * (0.9 + 0.3 * random()));
  const cut = round((bake.cleanCutMinutes ?? 20) * (1.2 + random()));
  const clues = cluesOf(real, baked.analysis, builtInShelf, { measured: { inPanMinutes: inPan, cutAfterMinutes: cut } });
  const style = appearanceOf(planned, planned, builtInShelf, cluesOf(input, planned.analysis, builtInShelf, {}));
  const seen = new Map<string, number>();
  for (const id of symptomIds) {
    let degree = (appearanceOf(baked, planned, builtInShelf, clues)[id] ?? 0) - (style[id] ?? 0);
    if (cause && degree < 0.5 && (cause.does[id] ?? 0) > 0.6) degree = 2;
    if (degree >= 0.6) seen.set(id, degree);
  }
  const scores = scoresOf(seen);
  const byScale = new Set(seenFrom(scores).filter(({ degree }) => degree > 0).map(({ symptomId }) => symptomId as string));
  const besides: Seen[] = [...seen].flatMap(([id, degree]) => (byScale.has(id) || degree < 1 ? [] : [{ symptomId: id as Seen["symptomId"], degree: round(Math.min(3, degree)) }]));
  const { cooledMm, loss } = baked.simulation;
  const { massG } = baked.analysis.batch;
  const at = (share: number): number => round((cooledMm.edge + share * (cooledMm.middle - cooledMm.edge)) * (1 + 0.02 * normal()));
  const walls = planned.analysis.fill.rimMm !== null;
  const predicted = predictedFor(input);
  const tidy = (value: number): number => round(value, 0.1);
  return {
    id: one.id, formulaId: one.formulaId, daysAgo: one.daysAgo, title: one.title, ovenId: one.oven, celsius: one.celsius ?? 0, amounts: one.amounts ?? {},
    measured: {
      minutes, massInG: round(massG),
      ...(one.measured === "all" ? { massOutG: round(massG * (1 - loss.oven / 100 + 0.003 * normal())), coreC: round(coreAtOut(baked.simulation) + 0.8 * normal()), ...(walls ? { heightsMm: [at(0), at(0.75), at(1), at(0.75), at(0)] } : { heightMm: at(1) }), stoodMinutes: stood, inPanMinutes: inPan, cutAfterMinutes: cut } : {}),
      ...(one.cause === "too-much-soda" ? { crumbPh: round(baked.analysis.lift.ph.mid, 0.1) } : {}),
    },
    scores, seen: besides, notes: one.notes, tags: one.tags ?? [],
    powderAgeMonths: round(age, 0.1),
    ...(one.cause === "cup-too-heavy" ? { cups: [128, 131, 126].map((meant, k) => ({ ingredientId: "sorghum-flour", meantG: meant, weighedG: [149, 152, 150][k] })) } : {}),
    predicted: { ...predicted, minutes: tidy(predicted.minutes), coreC: tidy(predicted.coreC), lossPercent: tidy(predicted.lossPercent), heightsMm: predicted.heightsMm.map(tidy), widthMm: tidy(predicted.widthMm), ph: tidy(lift.ph.mid) },
  };
}); // prettier-ignore
writeFileSync("apps/server/src/demo/trials.json", `${JSON.stringify(trials, null, 2)}\n`);
console.log(trials.map(({ id, measured, seen, scores }) => `${id.padEnd(12)} ${measured.minutes} min ${JSON.stringify((measured as { coreC?: number }).coreC)} ${[...seenFrom(scores).filter(({ degree }) => degree > 0), ...seen].map(({ symptomId, degree }) => `${symptomId} ${degree}`).join(", ")}`).join("\n")); // prettier-ignore
