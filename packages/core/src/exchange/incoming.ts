import type { Mending } from "../begin";
import { CoreError } from "../errors";
import { kindSchema } from "../formula/kinds-schema";
import type { Kind } from "../formula/kinds";
import { gramsPer, unitOf } from "../measure/units";
import { readRecipe } from "../read";
import type { Shelf } from "../pantry/shelf";
import { minutesOf } from "./duration";
import { INGREDIENT_PROPERTY, KIND_PROPERTY } from "./formula-out";
import { readTable, type ReadTable } from "./table";

/** One recipe found in what was brought: a text for our own reader, with what the file itself says of its lines. */
export interface Found {
  title: string;
  text: string;
  mending: Mending;
  kind?: Kind | undefined;
  /** Where it was found: "JSON-LD", "table", "text". */
  form: "json-ld" | "microdata" | "table" | "text";
  /** What was left out or taken otherwise, in sentences. */
  notes: string[];
}

type Node = Record<string, unknown>;
const isNode = (value: unknown): value is Node => typeof value === "object" && value !== null && !Array.isArray(value);
const listOf = (value: unknown): unknown[] => (value === undefined || value === null ? [] : Array.isArray(value) ? value : [value]);
const typesOf = (node: Node): string[] =>
  listOf(node["@type"]).map((type) => String(type).replace(/^https?:\/\/schema\.org\//, ""));

/** More nodes than this are no page of recipes. */
const MOST_NODES = 50_000;
const MOST_DEPTH = 40;

/** Every schema.org Recipe in parsed JSON-LD, in its order; recipes that are parts of another one are not counted by themselves. */
export function recipeNodes(json: unknown): Node[] {
  const found: Node[] = [];
  let seen = 0;
  const walk = (value: unknown, depth: number): void => {
    if (++seen > MOST_NODES || depth > MOST_DEPTH) return;
    if (Array.isArray(value)) return value.forEach((entry) => walk(entry, depth + 1));
    if (!isNode(value)) return;
    if (typesOf(value).includes("Recipe")) return void found.push(value);
    for (const entry of Object.values(value)) walk(entry, depth + 1);
  };
  walk(json, 0);
  return found;
}

const asIs = (text: string): string => text;

/** One sentence of a text a line, blanks joined. */
const oneLine = (text: string): string => text.replace(/\s+/g, " ").trim();

function stepsOf(value: unknown, plain: (text: string) => string): string[] {
  return listOf(value).flatMap((entry): string[] => {
    if (typeof entry === "string") return plain(entry).split(/\n+/).map(oneLine).filter((line) => line !== ""); // prettier-ignore
    if (!isNode(entry)) return [];
    if (entry["itemListElement"] !== undefined) {
      const name = typeof entry["name"] === "string" ? [`${oneLine(plain(entry["name"]))}:`] : [];
      return [...name, ...stepsOf(entry["itemListElement"], plain)];
    }
    const text = entry["text"] ?? entry["name"] ?? entry["description"];
    return typeof text === "string" ? stepsOf(text, plain) : [];
  });
}

const textOf = (value: unknown, plain: (text: string) => string): string =>
  typeof value === "string" ? oneLine(plain(value)) : isNode(value) && typeof value["name"] === "string" ? oneLine(plain(value["name"])) : ""; // prettier-ignore

/** What a HowToSupply of our own writing says of its line: which ingredient, how many grams. */
function saidOf(value: unknown): { ingredientId: string; grams: number } | null {
  if (!isNode(value)) return null;
  const id = listOf(value["identifier"]).filter(isNode).find((entry) => entry["propertyID"] === INGREDIENT_PROPERTY)?.["value"]; // prettier-ignore
  const quantity = value["requiredQuantity"];
  const grams = isNode(quantity) && quantity["unitCode"] === "GRM" ? Number(quantity["value"]) : Number.NaN;
  return typeof id === "string" && Number.isFinite(grams) && grams >= 0 ? { ingredientId: id, grams } : null;
}

/** A schema.org Recipe as a text for the reader. `plain` takes marks and entities out of a text. Throws `no-recipe` where it has no ingredients. */
export function fromRecipeNode(
  node: Node,
  shelf: Shelf,
  plain: (text: string) => string = asIs,
  form: Found["form"] = "json-ld",
): Found {
  const title = textOf(node["name"], plain) || textOf(node["headline"], plain) || "Untitled recipe";
  const all = listOf(node["recipeIngredient"] ?? node["ingredients"]).map((entry) => textOf(entry, plain)).filter((line) => line !== ""); // prettier-ignore
  if (all.length === 0) throw new CoreError("no-recipe", `“${title}” names no ingredients; recipeIngredient with one line each would be right.`, "recipeIngredient"); // prettier-ignore
  const supplies = listOf(node["supply"]).map(saidOf);
  const mending: Mending = {};
  // Ours says of each line which ingredient it is, in the same order; a line that says it twice differently is left to the reader.
  if (supplies.length === all.length)
    all.forEach((line, k) => {
      const said = supplies[k];
      if (said && shelf.get(said.ingredientId)) mending[`- ${line}`] = said;
    });
  const parts = listOf(node["hasPart"]).filter(isNode).filter((part) => typesOf(part).includes("Recipe")); // prettier-ignore
  const inParts = parts.map((part) => ({
    heading: textOf(part["name"], plain) || "Another part",
    lines: listOf(part["recipeIngredient"]).map((entry) => textOf(entry, plain)),
  }));
  const left = [...all];
  const groups = inParts.map(({ heading, lines }) => ({
    heading,
    // From behind: a line that stands in the batter and in a part is the part's last one.
    lines: lines.filter((line) => {
      const at = left.lastIndexOf(line);
      if (at >= 0) left.splice(at, 1);
      return at >= 0;
    }),
  }));
  const steps = stepsOf(node["recipeInstructions"], plain);
  const cook = minutesOf(node["cookTime"]);
  const yields = listOf(node["recipeYield"]).map((entry) => (typeof entry === "number" ? String(entry) : textOf(entry, plain))).filter((text) => text !== ""); // prettier-ignore
  const best = [...yields].sort((a, b) => b.length - a.length)[0];
  const timed = /\d\s*(?:min|hour|hr)/i.test(steps.join(" "));
  const kind = kindSchema.safeParse(
    listOf(node["additionalProperty"]).filter(isNode).find((entry) => entry["propertyID"] === KIND_PROPERTY)?.["value"], // prettier-ignore
  ).data;
  const text = [
    `# ${title}`,
    "",
    ...(best === undefined ? [] : [`${/^(?:makes|serves|yields?)\b/i.test(best) ? best : /^\d+$/.test(best) ? `Serves ${best}` : `Makes ${best}`}`, ""]),
    "## Ingredients",
    "",
    ...left.map((line) => `- ${line}`),
    ...groups.flatMap(({ heading, lines }) => ["", `### ${heading}`, "", ...lines.map((line) => `- ${line}`)]),
    "",
    "## Method",
    "",
    ...steps.map((step, k) => (step.endsWith(":") || /^\d+[.)]/.test(step) ? step : `${k + 1}. ${step}`)),
    ...(cook !== null && !timed ? [`Bake for ${Math.round(cook)} minutes.`] : []),
    ...(typeof node["description"] === "string" && oneLine(node["description"]) !== "" ? ["", "## Notes", "", oneLine(plain(node["description"]))] : []),
  ].join("\n"); // prettier-ignore
  const notes =
    cook !== null && !timed ? [`The time in the oven, ${Math.round(cook)} min, is the file's cookTime; its steps name none.`] : [];
  return { title, text, mending, kind, form, notes };
}

/** What a column of a table may be. */
export const columnRoles = ["ingredient", "id", "grams", "amount", "unit", "note", "component", "optional", "recipe"] as const;
export type ColumnRole = (typeof columnRoles)[number];
/** Which column holds what: the number of the column, from 0. */
export type Columns = Partial<Record<ColumnRole, number>>;

const likely: [ColumnRole, RegExp][] = [
  ["id", /^(?:ingredient[ _-]?)?(?:id|code|key)$/i],
  ["recipe", /^(?:recipe|title|product|bake)(?:[ _-]?name)?$/i],
  ["component", /component|section|part|group|phase|stage/i],
  [
    "grams",
    /\((?:k?g|grams?|kilos?|oz|lbs?)\)$|^(?:k?g|grams?|kilos?|weight|mass|gewicht|poids|peso)\b(?!.*(?:least|most|low|high|min|max|%|per ?cent|share|each|\/))/i,
  ],
  ["ingredient", /^(?:ingredients?|item|name|material|zutat(?:en)?|ingr[ée]dients?|ingrediente)$/i],
  ["amount", /amount|quantity|qty|menge|quantit/i],
  ["unit", /^(?:units?|measure|uom|einheit|unit[ée])$/i],
  ["note", /note|remark|comment|preparation|prep/i],
  ["optional", /^optional$/i],
];

/** Which columns a head seems to have; the first that fits is taken. */
export function guessColumns(head: readonly string[]): Columns {
  const columns: Columns = {};
  for (const [role, pattern] of likely) {
    const at = head.findIndex((name, k) => pattern.test(name.trim()) && !Object.values(columns).includes(k));
    if (at >= 0) columns[role] = at;
  }
  return columns;
}

/** A row that adds up the others. */
const sums = /^(?:(?:sub-?|grand )?totals?|sum|summe|gesamt|totale)\b/i;

/** Grams of a unit that a head or a cell of masses says; null for one that is no mass. */
function gramsOfUnit(word: string): number | null {
  const unit = unitOf(word.toLowerCase().replace(/\.$/, ""));
  return unit === null ? null : (gramsPer[unit] ?? null);
}

/** What a column of masses is in by its head: "Weight (kg)"; grams where it says nothing. */
const headGrams = (head: string): number =>
  head.split(/[^\p{L}]+/u).reduce<number | null>((found, word) => found ?? (word === "" ? null : gramsOfUnit(word)), null) ?? 1;

const figureOf = (text: string, delimiter: string, isGrams: boolean): number => {
  // "1.250,5": points between thousands where the comma is the decimal one; nobody weighs "1.250" g to the milligram.
  const plain = isGrams && delimiter !== "," && /^\d{1,3}(?:\.\d{3})+(?:,\d+)?$/.test(text) ? text.replace(/\./g, "") : text;
  const decimal = delimiter !== "," || /^\d+,\d{1,2}$/.test(plain) ? plain.replace(",", ".") : plain.replace(/,/g, "");
  return decimal === "" ? Number.NaN : Number(decimal);
};

/** Grams that a cell says, in its own unit or in that of its column; NaN where it is no mass. */
function massIn(cell: string, delimiter: string, perUnit: number): number {
  const [, figure = "", word = ""] = /^([\d.,\s]*?)\s*(\p{L}+\.?)?$/u.exec(cell.trim()) ?? [];
  const per = word === "" ? perUnit : gramsOfUnit(word);
  const grams = per === null ? Number.NaN : figureOf(figure.replace(/\s/g, ""), delimiter, per === 1) * per;
  // Three figures behind a point would be read as thousands.
  return Math.round(grams * 100) / 100;
}

/**
 * Recipes out of a table by its columns: one line an ingredient, several recipes by the column `recipe`. Throws `bad-table` where no column
 * names the ingredients or none says how much.
 */
export function fromTable(table: ReadTable, columns: Columns, shelf: Shelf, title = "Recipe from a table"): Found[] {
  const { ingredient, id, grams, amount } = columns;
  if (ingredient === undefined && id === undefined)
    throw new CoreError("bad-table", `Which column names the ingredients? The columns are ${table.head.join(", ")}.`, "columns.ingredient");
  if (grams === undefined && amount === undefined)
    throw new CoreError("bad-table", `Which column says how much? Grams, or an amount with its unit. The columns are ${table.head.join(", ")}.`, "columns.grams");
  const cell = (row: readonly string[], role: ColumnRole): string => row[columns[role] ?? -1] ?? "";
  const perUnit = headGrams(table.head[grams ?? -1] ?? "");
  const recipes = new Map<string, string[][]>();
  for (const row of table.rows) {
    const of = cell(row, "recipe") || title;
    recipes.set(of, [...(recipes.get(of) ?? []), row]);
  }
  return [...recipes].map(([name, rows]): Found => {
    const mending: Mending = {};
    const notes: string[] = [];
    const groups = new Map<string, string[]>();
    for (const row of rows) {
      const known = shelf.get(cell(row, "id"));
      const called = oneLine(cell(row, "ingredient")) || known?.name || "";
      if (called === "" || sums.test(called)) continue;
      const weight = grams === undefined ? Number.NaN : massIn(cell(row, "grams"), table.delimiter, perUnit);
      const measured = oneLine(`${cell(row, "amount")} ${cell(row, "unit")}`);
      const much = Number.isFinite(weight) ? `${weight} g` : measured;
      const note = oneLine(cell(row, "note"));
      const off = /^(?:y|yes|true|1|x|optional)$/i.test(cell(row, "optional"));
      const line = `${much === "" ? "" : `${much} `}${called.toLowerCase()}${note === "" ? "" : `, ${note}`}${off ? " (optional)" : ""}`;
      if (grams !== undefined && cell(row, "grams") !== "" && !Number.isFinite(weight)) notes.push(`“${cell(row, "grams")}” for ${called} is no number of grams.`);
      const own = { ...(known ? { ingredientId: known.id } : {}), ...(Number.isFinite(weight) && known ? { grams: weight } : {}) };
      if (known) mending[`- ${line}`] = own;
      const part = cell(row, "component");
      groups.set(part, [...(groups.get(part) ?? []), `- ${line}`]);
    }
    const heading = (part: string): string[] => (part === "" || /^batter$/i.test(part) ? [] : ["", `### ${/^for /i.test(part) ? part : `For the ${part}`}`, ""]);
    const parts = [...groups].sort(([a], [b]) => Number(a !== "") - Number(b !== ""));
    const text = [`# ${name}`, "", "## Ingredients", "", ...parts.flatMap(([part, lines]) => [...heading(part), ...lines])].join("\n");
    return { title: name, text, mending, form: "table", notes };
  });
} // prettier-ignore

/** A line that parts one recipe from the next. */
const PARTING = /^\s*(?:[-=*_~]\s*){3,}$|^\f/;
const TOP_HEADING = /^#\s+\S/;
/** A recipe has this many ingredients at least. */
const LEAST = 2;

/** The recipes of one text: parted by rules, by headings of the first order, or by a second list of ingredients under a title of its own. One that has no ingredients belongs to the one before. */
export function severalIn(text: string, shelf: Shelf): Found[] {
  const lines = text.replace(/\r\n?/g, "\n").split("\n");
  const tops = lines.filter((line) => TOP_HEADING.test(line)).length;
  const starts = (line: string, k: number): boolean =>
    k > 0 && (PARTING.test(line) || (tops > 1 && TOP_HEADING.test(line)) || titled(lines, k));
  const chunks: string[][] = [[]];
  lines.forEach((line, k) => {
    if (starts(line, k)) chunks.push([]);
    if (!PARTING.test(line)) chunks.at(-1)?.push(line);
  });
  const isRecipe = (chunk: string): boolean =>
    readRecipe(chunk, "us", undefined, shelf).lines.filter(({ role, ingredientId }) => role === "ingredient" && ingredientId !== null).length >= LEAST;
  const joined: { text: string; whole: boolean }[] = [];
  for (const chunk of chunks.map((chunk) => chunk.join("\n").trim()).filter((chunk) => chunk !== "")) {
    const whole = isRecipe(chunk);
    const before = joined.at(-1);
    // What has no ingredients goes with what stands before it; a head without any goes with what follows.
    if (before && (!whole || !before.whole)) joined[joined.length - 1] = { text: `${before.text}\n\n${chunk}`, whole: whole || before.whole };
    else joined.push({ text: chunk, whole });
  }
  const recipes = joined.length > 1 ? joined.map(({ text: one }) => one) : [text];
  return recipes.map((one, k): Found => ({
    title: readRecipe(one, "us", undefined, shelf).title ?? (recipes.length > 1 ? `Recipe ${k + 1}` : "Untitled recipe"),
    text: one,
    mending: {},
    form: "text",
    notes: [],
  }));
} // prettier-ignore

const INGREDIENTS = /^\W*ingredients\W*$/i;

/** Whether a line is the title of a further recipe: a short line by itself, after it at once a list of ingredients, before it another one. */
function titled(lines: readonly string[], k: number): boolean {
  const line = (lines[k] ?? "").trim();
  if (line === "" || line.length > 80 || INGREDIENTS.test(line) || /[.:;]$/.test(line) || (lines[k - 1] ?? "").trim() !== "")
    return false;
  const after = lines.slice(k + 1).map((entry) => entry.trim()).filter((entry) => entry !== "")[0]; // prettier-ignore
  return after !== undefined && INGREDIENTS.test(after) && lines.slice(0, k).some((entry) => INGREDIENTS.test(entry.trim()));
}

/** What a text is by its look: JSON, a table, or recipes as they are written. Throws `bad-file`, `no-recipe`. */
export function fromText(
  text: string,
  shelf: Shelf,
  plain: (text: string) => string = asIs,
): { found: Found[] } | { table: ReadTable } {
  const bare = text.replace(/^\uFEFF/, "").trim();
  if (/^[[{]/.test(bare)) {
    const nodes = recipeNodes(jsonOf(bare));
    if (nodes.length === 0) throw new CoreError("no-recipe", "This JSON holds no schema.org Recipe; an object with \"@type\": \"Recipe\" would be right.", "text"); // prettier-ignore
    return { found: nodes.map((node) => fromRecipeNode(node, shelf, plain)) };
  }
  return { found: severalIn(bare, shelf) };
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new CoreError(
      "bad-file",
      `This begins like JSON and is none: ${error instanceof Error ? error.message : String(error)}.`,
      "text",
    );
  }
}

export { readTable };
