/**
 * How well the fault finder names a hidden cause: made-up bakes, each with one thing that went wrong in it, judged by somebody who misses things. Half
 * of what could be measured is told to the finder, half is not. The bakes come from the same simulation and partly from the same table that the finder
 * knows, so this shows that causes can be told apart, not that kitchens behave so.
 */
import { causeFamilies, causes, diagnose, type KitchenFacts, madeUp, type Measured, seeded } from "@uprise/core";

const BAKES = Number(process.argv[2] ?? 135);
const random = seeded(2026);
let [asked, first, three, brier] = [0, 0, 0, 0];
const confusion = new Map<string, Map<string, number>>();
const missed: string[] = [];
const spent: number[] = [];
for (let n = 0; asked < BAKES && n < 20 * BAKES; n++) {
  const cause = causes[n % causes.length];
  const bake = madeUp(1000 + n, { causeId: cause?.id });
  if (!bake || bake.seen.every(({ degree }) => degree === 0)) continue;
  asked++;
  const told = Object.fromEntries(Object.entries(bake.measured).filter(([key]) => key === "minutes" || random() < 0.5)) as Measured;
  const kitchen = Object.fromEntries(Object.entries(bake.kitchen).filter(() => random() < 0.5)) as KitchenFacts;
  const began = performance.now();
  const { causes: found } = diagnose(bake.input, { seen: bake.seen, measured: told, kitchen });
  spent.push(performance.now() - began);
  const at = found.findIndex(({ id }) => id === bake.cause.id);
  if (at === 0) first++;
  if (at >= 0 && at < 3) three++;
  else missed.push(`${bake.cause.id} (${bake.formula.kind}) → ${found.slice(0, 3).map(({ id, probability }) => `${id} ${probability.toFixed(2)}`).join(", ")}; seen ${bake.seen.filter(({ degree }) => degree > 0).map(({ symptomId, degree }) => `${symptomId} ${degree}`).join(", ")}`); // prettier-ignore
  brier += ((found[0]?.probability ?? 0) - (at === 0 ? 1 : 0)) ** 2;
  const row = confusion.get(bake.cause.family) ?? new Map<string, number>();
  const to = found[0]?.family ?? "none";
  row.set(to, (row.get(to) ?? 0) + 1);
  confusion.set(bake.cause.family, row);
}
const share = (count: number): string => `${Math.round((100 * count) / asked)} %`;
console.log(`${asked} made-up bakes over ${new Set(causes.map(({ id }) => id)).size} causes`);
console.log(
  `true cause first: ${share(first)}; among the first three: ${share(three)}; mean square of the first one's chance against the truth: ${(brier / asked).toFixed(3)}`,
);
console.log(`ms a bake, middle: ${[...spent].sort((a, b) => a - b)[spent.length >> 1]?.toFixed(0)}`);
console.log("\nfamily (rows true, columns first named)");
console.log("".padEnd(13) + causeFamilies.map((family) => family.slice(0, 6).padStart(7)).join(""));
for (const family of causeFamilies)
  console.log(family.padEnd(13) + causeFamilies.map((to) => String(confusion.get(family)?.get(to) ?? ".").padStart(7)).join(""));
if (missed.length > 0) console.log(`\nNot among the first three:\n${missed.join("\n")}`); // prettier-ignore
