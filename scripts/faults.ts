/**
 * How good a doctor the fault finder is: made-up bakes, each with one thing that went wrong in it or with nothing, judged by somebody who misses things,
 * in a kitchen whose oven, scale, probe and eye are not the finder's. Half of what could be measured is told to the finder, half is not. The bakes come
 * from the same simulation and partly from the same table, so that the kitchen's own errors are put on top: this shows that causes can be told apart and
 * how far chances are to be trusted, not that kitchens behave so.
 */
import {
  causeFamilies,
  causes,
  diagnose,
  type KitchenFacts,
  madeUp,
  type Measured,
  normalFrom,
  type Seen,
  seeded,
  symptomIds,
} from "@uprise/core";

const BAKES = Number(process.argv[2] ?? 230);
/** So many of the bakes are sound. */
const SOUND = 1 / 3;
/** A cause that is named with less leaves a sound bake called sound. */
const CALLED = 0.3;
/** Errors of a kitchen that all its bakes share, one standard deviation: height (share), loss (points), probe (K), strip (pH), oven thermometer (K). */
const KITCHEN = { height: 0.06, loss: 1.2, coreK: 1.5, ph: 0.2, ovenK: 3 };
/** What the eye leaves out, sees that is not there, and takes for a degree more or less. */
const EYE = { misses: 0.1, invents: 0.01, degree: 0.2 };

const random = seeded(2026);
const normal = normalFrom(random);

function inKitchen(measured: Measured): Measured {
  const { heightsMm, massInG = 0, massOutG, coreC, crumbPh, ovenC, ...rest } = measured;
  const share = 1 + KITCHEN.height * normal();
  return {
    ...rest,
    massInG,
    ...(massOutG === undefined ? {} : { massOutG: Math.min(massInG, massOutG + (massInG * KITCHEN.loss * normal()) / 100) }),
    ...(heightsMm ? { heightsMm: heightsMm.map((mm) => Math.round(mm * share)) as typeof heightsMm } : {}),
    ...(coreC === undefined ? {} : { coreC: coreC + KITCHEN.coreK * normal() }),
    ...(crumbPh === undefined ? {} : { crumbPh: crumbPh + KITCHEN.ph * normal() }),
    ...(ovenC === undefined ? {} : { ovenC: ovenC + KITCHEN.ovenK * normal() }),
  };
}

function bySomeEye(seen: readonly Seen[]): Seen[] {
  const there = seen.flatMap(({ symptomId, degree }) => {
    if (degree > 0 && random() < EYE.misses) return [];
    const other = degree > 0 && random() < EYE.degree ? degree + (random() < 0.5 ? 1 : -1) : degree;
    return [{ symptomId, degree: Math.min(3, Math.max(degree > 0 ? 1 : 0, other)) }];
  });
  const more = symptomIds.filter((id) => random() < EYE.invents && !there.some(({ symptomId }) => symptomId === id));
  return [...there, ...more.map((symptomId) => ({ symptomId, degree: 1 }))];
}

/** How much of what could be measured is told: half of it, or with `all` everything. */
const TOLD = process.argv[3] === "all" ? 1 : 0.5;

let [asked, first, three, sound, calledSound] = [0, 0, 0, 0, 0];
/** Those of them in which the fault left a sign of its own that the judge saw; in the others there is nothing to find. */
const signed = { asked: 0, first: 0, three: 0 };
const bins = Array.from({ length: 5 }, () => ({ n: 0, said: 0, true: 0 }));
const confusion = new Map<string, Map<string, number>>();
const missed: string[] = [];
const scolded: string[] = [];
for (let n = 0; asked + sound < BAKES && n < 20 * BAKES; n++) {
  const isSound = random() < SOUND;
  const bake = madeUp(1000 + n, isSound ? { sound: true } : { causeId: causes[n % causes.length]?.id });
  if (!bake) continue;
  const seen = bySomeEye(bake.seen);
  if (!isSound && seen.every(({ degree }) => degree === 0)) continue;
  const told = Object.fromEntries(
    Object.entries(inKitchen(bake.measured)).filter(([key]) => key === "minutes" || random() < TOLD),
  ) as Measured;
  const kitchen = Object.fromEntries(Object.entries(bake.kitchen).filter(() => random() < TOLD)) as KitchenFacts;
  const { causes: found } = diagnose(bake.input, { seen, measured: told, kitchen });
  for (const { id, probability } of found) {
    const bin = bins[Math.min(bins.length - 1, Math.floor(probability * bins.length))];
    if (!bin) continue;
    bin.n++;
    bin.said += probability;
    bin.true += id === bake.cause.id ? 1 : 0;
  }
  const names = found.slice(0, 3).map(({ id, probability }) => `${id} ${probability.toFixed(2)}`).join(", "); // prettier-ignore
  const signs = seen.filter(({ degree }) => degree > 0).map(({ symptomId, degree }) => `${symptomId} ${degree}`).join(", "); // prettier-ignore
  if (isSound) {
    sound++;
    if ((found[0]?.probability ?? 0) < CALLED) calledSound++;
    else scolded.push(`${bake.formula.kind} → ${names}; seen ${signs}; told ${JSON.stringify(told)}`);
    continue;
  }
  asked++;
  const at = found.findIndex(({ id }) => id === bake.cause.id);
  if (at === 0) first++;
  if (at >= 0 && at < 3) three++;
  if (seen.some(({ symptomId, degree }) => degree > 0 && (bake.cause.does[symptomId] ?? 0) > 0)) {
    signed.asked++;
    if (at === 0) signed.first++;
    if (at >= 0 && at < 3) signed.three++;
  } else missed.push(`${bake.cause.id} (${bake.formula.kind}) → ${names}; seen ${signs}`);
  const row = confusion.get(bake.cause.family) ?? new Map<string, number>();
  const to = causes.find(({ id }) => id === found[0]?.id)?.family ?? "none";
  row.set(to, (row.get(to) ?? 0) + 1);
  confusion.set(bake.cause.family, row);
}
const percent = (count: number, of: number): string => `${Math.round((100 * count) / Math.max(1, of))} %`;
console.log(`${asked} made-up bakes over ${new Set(causes.map(({ id }) => id)).size} causes, and ${sound} sound ones`);
console.log(
  `true cause first: ${percent(first, asked)}; among the first three: ${percent(three, asked)}; sound bakes called sound: ${percent(calledSound, sound)}`,
);
console.log(
  `of the ${signed.asked} with a sign of that fault: first ${percent(signed.first, signed.asked)}; among the first three ${percent(signed.three, signed.asked)}`,
);
const all = bins.reduce((sum, { n }) => sum + n, 0);
const off = bins.reduce((sum, { n, said, true: met }) => sum + Math.abs(said - met) * (n > 0 ? 1 : 0), 0) / Math.max(1, all);
console.log(`calibration, mean distance of what is said from what is so: ${off.toFixed(3)}`);
for (const { n, said, true: met } of bins) if (n > 0) console.log(`  said ${percent(said, n)}, so in ${percent(met, n)} of ${n}`);
console.log("\nfamily (rows true, columns first named)");
console.log("".padEnd(13) + causeFamilies.map((family) => family.slice(0, 6).padStart(7)).join(""));
for (const family of causeFamilies)
  console.log(family.padEnd(13) + causeFamilies.map((to) => String(confusion.get(family)?.get(to) ?? ".").padStart(7)).join(""));
if (missed.length > 0) console.log(`\nNot among the first three:\n${missed.join("\n")}`);
if (scolded.length > 0) console.log(`\nSound, and a cause named:\n${scolded.join("\n")}`);
