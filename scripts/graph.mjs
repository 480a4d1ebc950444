import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, normalize, relative } from "node:path";
import { FRONT, foundations, layers } from "./layers.mjs";

/** Prints which folder takes from which, and fails on a circle of files or an arrow that runs back up. `node scripts/graph.mjs` */
const SOURCE = /\.tsx?$/;
const TEST = /\.test\.tsx?$|\.d\.ts$/;
const SKIP = new Set(["node_modules", "dist", ".expo", "public"]);

const filesUnder = (path) =>
  readdirSync(path).flatMap((name) => {
    const file = join(path, name);
    if (SKIP.has(name)) return [];
    if (statSync(file).isDirectory()) return filesUnder(file);
    return SOURCE.test(name) && !TEST.test(name) ? [file] : [];
  });

const importOf = /(?:from|import)\s*\(?\s*"(\.[^"]+)"/g;

/** The file that a relative import names, or null for data and assets. */
function target(from, path) {
  const base = normalize(join(dirname(from), path));
  return [`${base}.ts`, `${base}.tsx`, join(base, "index.ts")].find(existsSync) ?? null;
}

function edgesOf(root) {
  return filesUnder(root).map((file) => {
    const text = readFileSync(file, "utf8");
    return [file, [...text.matchAll(importOf)].map((match) => target(file, match[1])).filter((to) => to !== null)];
  });
}

/** Circles of files, by Tarjan's strongly connected components. */
function circlesOf(edges) {
  const graph = new Map(edges);
  const state = new Map();
  const stack = [];
  const circles = [];
  let count = 0;
  const visit = (node) => {
    const here = { index: count, low: count, on: true };
    count++;
    state.set(node, here);
    stack.push(node);
    for (const next of graph.get(node) ?? []) {
      const other = state.get(next);
      if (!other) here.low = Math.min(here.low, visit(next).low);
      else if (other.on) here.low = Math.min(here.low, other.index);
    }
    if (here.low === here.index) {
      const circle = [];
      let last;
      do {
        last = stack.pop();
        state.get(last).on = false;
        circle.push(last);
      } while (last !== node);
      if (circle.length > 1 || graph.get(node)?.includes(node)) circles.push(circle.reverse());
    }
    return here;
  };
  for (const [node] of edges) if (!state.has(node)) visit(node);
  return circles;
}

/** Where a file stands: -1 for foundations, the place of its folder, or after all folders. */
function layerOf(root, file) {
  const path = relative(root, file).replaceAll("\\", "/");
  const at = layers[root].findIndex((folder) => path.startsWith(`${folder}/`));
  if (at >= 0) return at;
  if (foundations[root].includes(path.replace(SOURCE, ""))) return -1;
  const front = path.includes("/") || /^index\./.test(path) ? -1 : layers[root].indexOf(FRONT);
  return front >= 0 ? front : layers[root].length;
}

let faults = 0;
for (const root of Object.keys(layers)) {
  const edges = edgesOf(root);
  const names = [...layers[root], layers[root].includes(FRONT) ? "(index)" : FRONT];
  const counts = new Map();
  for (const [file, tos] of edges)
    for (const to of tos) {
      const [a, b] = [layerOf(root, file), layerOf(root, to)];
      if (a === b || b < 0) continue;
      if (a < b) {
        faults++;
        console.error(`Runs back up: ${file} takes from ${to}.`);
      }
      const key = `${names[a] ?? "(foundation)"} → ${names[b]}`;
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
  for (const circle of circlesOf(edges)) {
    faults++;
    console.error(`A circle: ${circle.join(" → ")} → ${circle[0]}.`);
  }
  console.log(`${root}: ${edges.length} files`);
  for (const name of names) {
    const takes = [...counts].filter(([key]) => key.startsWith(`${name} → `)).map(([key, n]) => `${key.split(" → ")[1]} ${n}`);
    if (takes.length > 0) console.log(`  ${name} takes from ${takes.join(", ")}`);
  }
}
console.log(faults === 0 ? "No circle, no arrow that runs back up." : `${faults} faults in the structure.`);
process.exitCode = faults === 0 ? 0 : 1;
