import { spawnSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { analyse, design, type Design, isGround, roleOf } from "../packages/core/src/index";
import { randomWish } from "../packages/core/src/design/shelves";
import { isStarch } from "../packages/core/src/design/flours";
import { typicalLines } from "../packages/core/src/balance/bands";
import { kindName, kinds } from "../packages/core/src/formula/kinds";
import { bareKitchen, openFormula, readings, USUAL_SHELF, wishFrom } from "../packages/core/src/index";
import { demoFormulas } from "../apps/server/src/demo/formulas";
import { catalogue } from "../packages/core/src/pantry/catalogue";

/**
 * Designs before 200 made-up shelves, judged by the findings of the bench; the table of what flours do. `npm run designs`, with `--write` into
 * docs/science/design.md between its marks.
 */
const SHELVES = 200;
const DOC = "docs/science/design.md";

const sound = ({ lines, kind, vessel, oven, process }: Design): boolean => {
  const analysis = analyse({ lines, kind, vessel, oven, process });
  return (
    analysis.bake !== null &&
    analysis.findings.every(({ severity }) => severity === "note") &&
    analysis.bands.every(({ low, high, value }) => value >= 0.995 * low - 0.01 && value <= 1.005 * high + 0.01)
  );
};

let given = 0;
let good = 0;
let shelves = 0;
let bought = 0;
const times: number[] = [];
for (let seed = 1; seed <= SHELVES; seed++) {
  const wish = randomWish(seed);
  const begun = performance.now();
  const { designs, missing } = design(wish);
  times.push(performance.now() - begun);
  if (designs.length > 0) shelves++;
  given += designs.length;
  good += designs.filter(sound).length;
  if (missing?.ingredientIds.length) bought++;
}
times.sort((a, b) => a - b);
const at = (share: number): number => Math.round(times[Math.floor(share * times.length)] ?? 0);
const usual = kinds.map((kind) => {
  const { designs } = design({ kind });
  const typical = typicalLines(kind, 1000);
  const base = (lines: readonly { ingredientId: string; grams: number }[], id: RegExp): number =>
    lines.reduce((g, line) => g + (id.test(line.ingredientId) ? line.grams : 0), 0);
  const flourG = (lines: readonly { ingredientId: string; grams: number }[]): number =>
    base(lines, /flour|starch|blend|cornmeal|arrowroot|meal$/);
  const percent = (lines: readonly { ingredientId: string; grams: number }[], id: RegExp): string =>
    `${Math.round((100 * base(lines, id)) / Math.max(1, flourG(lines)))}`;
  const [first] = designs;
  const rows: [string, RegExp][] = [
    ["egg", /^egg$/],
    ["fat", /butter|oil$/],
    ["sugar", /sugar|honey/],
    ["powder", /^powder/],
  ];
  return `| ${kindName[kind]} | ${designs.length} | ${rows.map(([, id]) => `${percent(first?.lines ?? [], id)} / ${percent(typical, id)}`).join(" | ")} |`;
});

/** A formula of the kiosk, and what is designed with it as the start: water, fat, sugar, egg and lift side by side. */
const against = demoFormulas.map(({ formula }) => {
  const { wish } = wishFrom(formula, USUAL_SHELF);
  const { designs, missing } = design(wish);
  const mine = readings(openFormula(formula, bareKitchen));
  const [first] = designs;
  if (!first) return `| ${formula.title} | none: ${missing?.why ?? ""} | | | | | |`;
  const its = readings({ lines: first.lines, kind: first.kind, vessel: first.vessel, oven: first.oven, process: first.process });
  const pair = (name: (typeof its.bands)[number]["name"]): string => {
    const of = (bands: typeof its.bands): number => Math.round(bands.find((band) => band.name === name)?.value ?? 0);
    return `${of(its.bands)} / ${of(mine.bands)}`;
  };
  const flours = first.flours.map(({ ingredientId, percent }) => `${percent} ${ingredientId}`).join(", ");
  return `| ${formula.title} | ${flours} | ${pair("waterPercent")} | ${pair("fatPercent")} | ${pair("sugarPercent")} | ${pair("eggPercent")} | ${pair("gasMlPer100g")} |`;
});

const report = [
  `- Made-up shelves: ${SHELVES}. On ${shelves} of them there is at least one design, ${given} in all; sound when analysed and baked again on the bench, inside every band: **${good} of ${given}**.`,
  `- On ${bought} of the other ${SHELVES - shelves} one thing to buy is named; the rest are told what stands in the way.`,
  `- Time for a whole answer, most of it bakes, on a shelf where something is missing also the search for what to buy: middle ${at(0.5)} ms, nine in ten under ${at(0.9)} ms.`,
  "",
  "Against the hand-made typical formula of each kind, in % of flour, design / typical:",
  "",
  "| Kind | Designs | Egg | Fat | Sugar | Powder |",
  "| --- | --- | --- | --- | --- | --- |",
  ...usual,
  "",
  "Against the formulas of the demo, each as the start of a design with the usual shelf beside it; on what builds the crumb, design / by hand. Flours differ because",
  "the blend is chosen for its kind from all that is on hand and not for the flour the recipe is named after; fat and sugar follow the recipe, egg and",
  "lift are the kind's, water is what the body then wants:",
  "",
  "| Formula | Flours of the first design, % | Water | Fat | Sugar | Egg | Gas, mL in 100 g |",
  "| --- | --- | --- | --- | --- | --- | --- |",
  ...against,
  "",
  "| Flour or starch | Structure | Flavour | Most, % | Starch, % | Protein, % | Drinks, g/g | Brings |",
  "| --- | --- | --- | --- | --- | --- | --- | --- |",
  ...catalogue.filter(isGround).map((flour) => {
    const { structure, flavour, most, brings } = roleOf(flour);
    return `| ${flour.name}${isStarch(flour) ? " (starch)" : ""} | ${structure} | ${flavour} | ${most} | ${Math.round(flour.per100g.starch)} | ${Math.round(flour.per100g.protein)} | ${flour.absorbs ? `${flour.absorbs.fast}–${flour.absorbs.slow}` : "–"} | ${brings} |`;
  }),
].join("\n");

console.log(report);
if (process.argv.includes("--write")) {
  const [before = "", after = ""] = readFileSync(DOC, "utf8").split(/<!-- report -->[\s\S]*<!-- end -->/);
  writeFileSync(DOC, `${before}<!-- report -->\n\n${report}\n\n<!-- end -->${after}`);
  spawnSync("node_modules/.bin/prettier", ["--write", DOC], { stdio: "inherit" });
}
if (good !== given) process.exit(1);
