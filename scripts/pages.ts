/**
 * Made-up pages in five languages, drawn, spoilt and read: characters right, ingredients found with their mass, wrong ones among those that nobody is
 * asked about, seconds and memory. `npm run pages [-- pages per language]`. What the truth of a page weighs is read from its own lines by the reader.
 */
import { mkdtempSync, copyFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pageLines } from "@uprise/core/src/picture/page-lines";
import { grayOf } from "@uprise/core/src/picture/gray";
import { readPage } from "@uprise/core/src/picture/recognise";
import { judgeOf } from "@uprise/core/src/picture/judge";
import { readRecipe } from "@uprise/core";
import sharp from "sharp";
import { createWorker } from "tesseract.js";
import { recogniserOf } from "../apps/web/workers/letters";
import { drawPages, madePage, type Made, type Tongue, tongues } from "./pages/render";
import { type Harm, harms, spoilt } from "./pages/spoil";

const PER_TONGUE = Number(process.argv[2] ?? 12);
const ONLY = process.argv[3];
const DATA: Record<Tongue, string> = { en: "eng", de: "deu", fr: "fra", es: "spa", it: "ita" };

const folder = mkdtempSync(join(tmpdir(), "letters-"));
for (const name of Object.values(DATA)) copyFileSync(`node_modules/@tesseract.js-data/${name}/4.0.0_best_int/${name}.traineddata.gz`, join(folder, `${name}.traineddata.gz`)); // prettier-ignore

/** Edits from one text to another. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, k) => k);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) next[j] = Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1)); // prettier-ignore
    row = next;
  }
  return row[b.length] ?? 0;
}
const even = (text: string): string => text.replace(/[–—−]/g, "-").replace(/[‘’]/g, "'").replace(/×/g, "x").replace(/\s+/g, " ").trim(); // prettier-ignore

interface Weighed {
  id: string;
  grams: number;
  source: string;
}
const weighedIn = (lines: readonly string[], tongue: Tongue): Weighed[] =>
  readRecipe(lines.join("\n"), tongue === "en" ? "us" : "metric", undefined, undefined, undefined, { language: tongue })
    .lines.filter(({ role, state }) => role === "ingredient" && state === "read")
    .flatMap(({ ingredientId: id, grams, source }) => (id && grams ? [{ id, grams: grams.mid, source }] : []));
const same = (a: Weighed, b: Weighed): boolean => a.id === b.id && Math.abs(a.grams - b.grams) <= 0.02 * b.grams;

interface Told {
  harm: Harm;
  chars: number;
  wrong: number;
  truth: number;
  found: number;
  open: number;
  certain: number;
  amiss: number;
  ms: number;
}

async function readTongue(tongue: Tongue, pages: readonly Made[], pictures: readonly Buffer[]): Promise<Told[]> {
  const letters = await createWorker(DATA[tongue], 1, { langPath: folder, gzip: true, cacheMethod: "none", logger: () => undefined, errorHandler: () => undefined }); // prettier-ignore
  const recogniser = recogniserOf(letters, (bytes) => Buffer.from(bytes));
  const out: Told[] = [];
  for (const [k, page] of pages.entries()) {
    const harm = harms[(k + tongues.indexOf(tongue)) % harms.length] as Harm;
    const { data, info } = await sharp(pictures[k]).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const seen = spoilt(grayOf({ width: info.width, height: info.height, data }), harm, 50 + k);
    const begun = performance.now();
    const read = await readPage(seen, {}, recogniser);
    const lines = pageLines(read.words, judgeOf(tongue));
    const ms = performance.now() - begun;
    const truth = [page.title, ...page.list, ...page.steps];
    const text = even(lines.map((line) => line.text).join(" "));
    // Heads of lists are in neither: where they stand is the layout's business.
    const whole = even(truth.join(" "));
    const heads = ["Ingredients", "Method", "Zutaten", "Zubereitung", "Ingrédients", "Préparation", "Ingredientes", "Preparación", "Ingredienti", "Preparazione"]; // prettier-ignore
    const bare = even(heads.reduce((all, head) => all.replace(new RegExp(`\\b${head}(?!\\p{L})`, "u"), ""), text));
    const wanted = weighedIn(page.list, tongue);
    const got = weighedIn(lines.map((line) => line.text), tongue); // prettier-ignore
    const openTexts = new Set(lines.filter(({ isOpen }) => isOpen).map((line) => line.text));
    const certain = got.filter(({ source }) => !openTexts.has(source));
    const found = wanted.filter((one) => got.some((other) => same(other, one)));
    const amiss = certain.filter((one) => !wanted.some((other) => same(one, other)));
    const wrong = distance(whole, bare);
    out.push({ harm, chars: whole.length, wrong, truth: wanted.length, found: found.length, open: openTexts.size, certain: certain.length, amiss: amiss.length, ms }); // prettier-ignore
    if (ONLY === "all" || found.length < wanted.length || amiss.length > 0 || wrong > 0.04 * whole.length) {
      console.log(`${page.name}, ${harm}: ${found.length} of ${wanted.length}, ${wrong} of ${whole.length} characters, ${Math.round(ms)} ms, sure ${Math.round(read.confidence)}`); // prettier-ignore
      for (const one of wanted.filter((line) => !found.includes(line))) console.log(`    missed: ${one.source}`);
      for (const one of amiss) console.log(`    wrong and certain: ${one.source} (${one.id} ${one.grams.toFixed(1)} g)`);
      if (ONLY !== undefined) {
        console.log(lines.map((line) => `      ${line.isOpen ? "?" : " "} ${line.text}${line.choices.length > 0 ? `   | ${line.choices.join(" | ")}` : ""}`).join("\n")); // prettier-ignore
      }
    }
  }
  await letters.terminate();
  return out;
}

async function main(): Promise<void> {
  const all: Told[] = [];
  for (const tongue of tongues) {
    const pages = Array.from({ length: PER_TONGUE }, (_, k) => madePage(tongue, k));
    all.push(...(await readTongue(tongue, pages, await drawPages(pages))));
  }
  const sum = (some: readonly Told[], of: (one: Told) => number): number => some.reduce((a, one) => a + of(one), 0);
  const percent = (a: number, b: number): string => `${((100 * a) / Math.max(1, b)).toFixed(1)} %`;
  for (const [name, some] of [["clean", all.filter(({ harm }) => harm === "clean")], ["spoilt", all.filter(({ harm }) => harm !== "clean")], ...harms.slice(1).map((harm) => [`  ${harm}`, all.filter((one) => one.harm === harm)] as const)] as const) // prettier-ignore
    console.log(`${name}: ${some.length} pages, characters right ${percent(sum(some, (one) => one.chars - Math.min(one.chars, one.wrong)), sum(some, (one) => one.chars))}, ingredients with their mass ${percent(sum(some, ({ found }) => found), sum(some, ({ truth }) => truth))}, asked about ${percent(sum(some, ({ open }) => open), sum(some, ({ truth }) => truth))}, wrong and certain ${percent(sum(some, ({ amiss }) => amiss), sum(some, ({ certain }) => certain))}`); // prettier-ignore
  const times = all.map(({ ms }) => ms).sort((a, b) => a - b);
  console.log(`a page takes ${Math.round(times[Math.floor(times.length / 2)] ?? 0)} ms, the longest ${Math.round(times.at(-1) ?? 0)}; memory ${Math.round(process.resourceUsage().maxRSS / 1024)} MB at most`); // prettier-ignore
}
void main();
