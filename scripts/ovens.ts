import { writeFileSync } from "node:fs";
import { ready, baked } from "@uprise/core/src/balance/analyse";
import { brownWord } from "@uprise/core/src/bake/browning";
import { modelTable } from "@uprise/core/src/bake/model";
import { stepsFor, twiceAsFine } from "@uprise/core/src/bake/start";
import { bakeThrough } from "@uprise/core/src/bake/through";
import { inputOf, type Window, windows } from "@uprise/core/corpus/kitchen-windows";
import { openedText, textBakes } from "@uprise/core/corpus/kitchen-texts";

const WIDENED = 0.1;
const order = ["pale", "light gold", "golden", "deep brown", "dark"];
const colour = (minutes: number, range: [string, string] | undefined): string => {
  const word = brownWord(minutes);
  const fits =
    range === undefined || (order.indexOf(word) >= order.indexOf(range[0]) && order.indexOf(word) <= order.indexOf(range[1]));
  return `${word}${fits ? "" : ` (${range[0]} to ${range[1]}) !`}`;
};
const inside = (value: number, range: [number, number] | undefined, by = 0): boolean =>
  range === undefined || (value >= range[0] * (1 - by) && value <= range[1] * (1 + by));
const shown = (value: number, range: [number, number] | undefined, digits: number): string =>
  `${value.toFixed(digits)}${range === undefined ? "" : ` (${range[0]}–${range[1]})${inside(value, range) ? "" : " !"}`}`;
const aligned = (rows: string[][]): string => rows.map((row) => `| ${row.join(" | ")} |`).join("\n");

function kitchens(use: Window["use"]): string {
  let hits = 0;
  const own = windows.filter((window) => window.use === use);
  const rows = own.map((window) => {
    const { simulation } = baked(inputOf(window));
    const { minutes, marks, browning } = simulation;
    const middle = (window.minutes[0] + window.minutes[1]) / 2;
    if (inside(minutes, window.minutes, WIDENED)) hits++;
    return [
      window.name,
      `${window.minutes[0]}–${window.minutes[1]}`,
      minutes.toFixed(1),
      `${minutes > middle ? "+" : ""}${(100 * (minutes / middle - 1)).toFixed(0)} %`,
      inside(minutes, window.minutes) ? "yes" : inside(minutes, window.minutes, WIDENED) ? "widened" : "NO",
      `${marks.core?.toFixed(1) ?? "–"} / ${marks.golden?.toFixed(1) ?? "–"}`,
      `${simulation.cooledMm.middle.toFixed(0)} / ${simulation.cooledMm.edge.toFixed(0)}, ${simulation.top}`,
      shown(simulation.loss.oven, window.loss, 1),
      shown(simulation.volumeMlPerG, window.mlPerG, 2),
      colour(browning.top, window.top),
      colour(browning.base, window.base),
    ];
  });
  const head = [
    "bake",
    "window, min",
    "computed",
    "off its middle",
    "inside",
    "set / golden, min",
    "middle / edge, mm",
    "loss, %",
    "mL/g",
    "top",
    "base",
  ];
  return [
    aligned([head]),
    aligned([head.map(() => "---")]),
    aligned(rows),
    `\n${hits} of ${rows.length} inside the window widened by 10 %`,
  ].join("\n");
}

/** Minutes of the bakes that are told as written recipes, against their windows. */
function texts(): string {
  let hits = 0;
  let off = 0;
  const rows = textBakes.map((bake) => {
    const { minutes, judged } = baked(openedText(bake), undefined, { frames: 0, spread: 0 }).simulation;
    const [low, high] = bake.minutes;
    if (inside(minutes, bake.minutes, WIDENED)) hits++;
    const error = Math.log(minutes / Math.sqrt(low * high));
    off += error;
    return [
      bake.id,
      bake.kind,
      `${low}–${high}`,
      minutes.toFixed(1),
      `${error > 0 ? "+" : ""}${(100 * error).toFixed(0)} %`,
      inside(minutes, bake.minutes) ? "yes" : inside(minutes, bake.minutes, WIDENED) ? "widened" : "NO",
      judged,
    ];
  });
  const head = ["bake", "kind", "window, min", "computed", "off its middle", "inside", "judged by"];
  return [
    aligned([head, head.map(() => "---"), ...rows]),
    `\n${hits} of ${rows.length} inside the window widened by 10 %, off by ${((100 * off) / rows.length).toFixed(1)} % on the average`,
  ].join("\n");
}

function grids(): string {
  const rows = windows.map((window) => {
    const { start } = ready(inputOf(window));
    const steps = stepsFor(start);
    const own = (bakeThrough(start, steps).doneS ?? NaN) / 60;
    const fine = (bakeThrough(start, twiceAsFine(steps)).doneS ?? NaN) / 60;
    const { layers, columns } = steps.grid;
    return [
      window.name,
      `${columns} × ${layers}, ${steps.dt} s`,
      own.toFixed(2),
      fine.toFixed(2),
      `${(100 * (own / fine - 1)).toFixed(1)} %`,
    ];
  });
  return [
    aligned([["bake", "grid", "minutes", "grid twice as fine, step a quarter", "off"], Array.from({ length: 5 }, () => "---")]),
    aligned(rows),
  ].join("\n");
}

function sensitivities(): string {
  const rows = windows.flatMap((window) =>
    [0, 3, 6, 8, 10, 13].includes(windows.indexOf(window))
      ? baked(inputOf(window)).simulation.sensitivity.map(({ input, change, percent }) => [
          window.name,
          input,
          change,
          `${percent > 0 ? "+" : ""}${percent.toFixed(1)} %`,
        ])
      : [],
  );
  return [aligned([["bake", "input", "one step", "minutes"], Array.from({ length: 4 }, () => "---")]), aligned(rows)].join("\n");
}

function constants(): string {
  const rows = Object.entries(modelTable).map(([name, { value, low, high, unit, source, confidence }]) => [
    name,
    `${value}`,
    `${low}–${high}`,
    unit,
    source,
    confidence,
  ]);
  return [
    aligned([["name", "value", "range", "unit", "what and whence", "confidence"], Array.from({ length: 6 }, () => "---")]),
    aligned(rows),
  ].join("\n");
}

const report = `# The ovens: computed bakes against kitchen windows

Written by \`npm run ovens -- --write\`. One set of constants for every kind (\`packages/core/src/bake/model.ts\`); no factor by kind. The
windows are general kitchen knowledge for a typical batter of the kind (\`packages/core/src/bake/data/kitchen-windows.json\`); "!" marks a loss, a volume or
a colour outside of its range. Which half a window belongs to follows from its name.

## Minutes, shape, loss and volume

### What the constants were fitted to

${kitchens("fit")}

### What only checks them

${kitchens("check")}

### By their written recipes

Bakes on plate and iron, bars, crisp things, close pieces, trays and cakes, their windows written down before they were computed; four windows that
did not fit their own batch were put right afterwards, and the classes that came out wrong (thick dough on a plate, pieces full of fruit or coconut,
close drops; then biscuits, which wait for their top) were mended. \`packages/core/src/bake/data/kitchen-texts.json\`.

${texts()}

## The grid

Time to done on the grid in use against one with twice the layers and columns and a quarter of the step.

${grids()}

## What the minutes depend on

Each uncertain input moved by one plausible step towards slower, the others held.

${sensitivities()}

## The constants

A fixed, B within 30 %, C within a factor of two. Pans and oven modes: packages/core/src/bake/data.

${constants()}
`;
console.log(report);
if (process.argv.includes("--write")) writeFileSync("docs/science/ovens.md", report);
