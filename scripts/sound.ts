/** Counts what the clues of a formula are in sound bakes: the kitchen windows and the beginning of every kind, by kind. Writes the table that the fault finder counts from. */
import { readFileSync, writeFileSync } from "node:fs";
import { baked } from "@uprise/core/src/balance/analyse";
import type { BakedAnalysis } from "@uprise/core/src/balance/readings";
import { beginKind } from "@uprise/core/src/begin";
import { bareKitchen } from "@uprise/core/src/formula/bare-kitchen";
import { kinds } from "@uprise/core/src/formula/kinds";
import { openFormula, type Opened } from "@uprise/core/src/formula/open";
import { builtInShelf } from "@uprise/core/src/pantry/catalogue";
import { type ClueId, cluesOf } from "@uprise/core/src/trial/clues";
import { inputOf, windows } from "@uprise/core/corpus/kitchen-windows";

const FILE = "packages/core/src/trial/data/sound.json";
/** What all kinds show counts as so many bakes of a kind's own. */
const BORROWED = 2;
/** A spread under this share of all kinds' own is chance. */
const LEAST = 0.35;

interface Counted {
  mean: number;
  sd: number;
}
const round = (value: number): number => Math.round(1000 * value) / 1000;
function counted(values: readonly number[], all?: Counted): Counted {
  const n = values.length;
  const own = values.reduce((sum, value) => sum + value, 0) / Math.max(1, n);
  const mean = all ? (n * own + BORROWED * all.mean) / (n + BORROWED) : own;
  const sd = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, n));
  return { mean: round(mean), sd: round(Math.max(sd, all ? LEAST * all.sd : 0)) };
}

const inputs: Opened[] = [
  ...windows.flatMap((window) => (window.lines ? [inputOf(window) as Opened] : [])),
  ...kinds.flatMap((kind) => [600, 950].map((massG) => openFormula(beginKind(kind, "metric", massG), bareKitchen))),
];
const table = JSON.parse(readFileSync(FILE, "utf8")) as Record<string, Counted & { kinds?: Record<string, Counted> }>;
const found = new Map<ClueId, { kind: string; value: number }[]>();
for (const input of inputs) {
  const analysis: BakedAnalysis = baked(input, undefined, { frames: 0, spread: 0 }).analysis;
  for (const [clue, value] of Object.entries(cluesOf(input, analysis, builtInShelf, {})) as [ClueId, number | undefined][])
    if (value !== undefined) found.set(clue, [...(found.get(clue) ?? []), { kind: analysis.given.kind, value }]);
}
for (const [clue, values] of found) {
  // What is measured or remembered stands in the table by hand.
  if (table[clue] && !table[clue].kinds) continue;
  const all = counted(values.map(({ value }) => value));
  const own = [...new Set(values.map(({ kind }) => kind))].sort();
  table[clue] = {
    ...all,
    kinds: Object.fromEntries(
      own.map((kind) => [
        kind,
        counted(
          values.flatMap((one) => (one.kind === kind ? [one.value] : [])),
          all,
        ),
      ]),
    ),
  };
}
writeFileSync(FILE, `${JSON.stringify(table, null, 2)}\n`);
console.log(`${inputs.length} sound bakes, ${Object.keys(table).length} clues`);
