import { languageOf } from "../measure/languages/language";
import type { Language } from "../measure/languages/names";
import { allergensInWords } from "../pantry/allergen-words";
import type { Allergen } from "../pantry/ingredient-schema";
import { type PrintedTable, printedTable } from "../pantry/printed-table";
import type { packetGluten } from "../pantry/packet-gluten";
import type { Shelf } from "../pantry/shelf";
import { readRecipe } from "../read";

/** What the print on a packet says; what is not said, or can be read in two ways, is left out and named in `open`. */
export interface PacketPrint {
  /** Its ingredients in the order of the label: the id of each that is known for certain, else null. */
  ingredients: { text: string; id: string | null }[];
  /** Allergens that are named among the ingredients or in the statement. */
  allergens: Allergen[];
  /** The trace statement, word by word. */
  statement?: string;
  gluten?: (typeof packetGluten)[number];
  sizeG?: number;
  lot?: string;
  /** YYYY-MM-DD. */
  bestBefore?: string;
  /** Its table of 100 g. */
  nutrition?: PrintedTable;
  /** The percentage of the whole that stands beside an ingredient, by id. */
  percents: Record<string, number>;
  /** What stood there and is asked about, in words. */
  open: string[];
}

const heads = /\b(?:ingredients?|zutaten|ingr[ée]dients?|ingredientes|ingredienti)\s*:?/iu;
const traces =
  /(?:\b(?:may (?:also )?contain|kann spuren|peut contenir|puede contener|pu[òo] contenere|made in a (?:factory|facility)|produced in)\b)[^.]*\.?/iu;
/** Where a list of ingredients ends, if no full stop ends it. */
const ends =
  /\b(?:nutrition|n[äa]hrwert|valeurs? nutri|informaci[óo]n nutri|valori nutri|store|storage|k[üu]hl und|[àa] conserver|conservar|conservare|best before|mindestens haltbar|net weight|lot\b)/iu;
const before =
  /(?:best before(?: end)?|bbe?|use by|exp\.?|mindestens haltbar bis(?: ende)?|mhd|(?:[àa] consommer )?de pr[ée]f[ée]rence avant(?: (?:le|fin))?|consumir preferentemente antes del?|da consumarsi preferibilmente entro(?: il)?)\s*:?\s*/iu;
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

const two = (n: number): string => String(n).padStart(2, "0");
const dayOf = (year: number, month: number, day: number): string | null => {
  const at = new Date(Date.UTC(year, month - 1, day));
  return at.getUTCMonth() === month - 1 && at.getUTCDate() === day ? `${year}-${two(month)}-${two(day)}` : null;
};

/** A date as packets print it. "ambiguous" where day and month could change places. A month alone is its last day. */
export function printedDate(text: string): string | "ambiguous" | null {
  const iso = /^(\d{4})-(\d{2})-(\d{2})/.exec(text);
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const named = /^(?:(\d{1,2})\s*)?([a-z]{3})[a-z]*\.?\s*(\d{4}|\d{2})/i.exec(text);
  const month = named ? MONTHS.indexOf((named[2] ?? "").toLowerCase()) + 1 : 0;
  const full = (year: string): number => (year.length === 2 ? 2000 + Number(year) : Number(year));
  if (named && month > 0) {
    const year = full(named[3] ?? "");
    return dayOf(year, month, named[1] ? Number(named[1]) : new Date(Date.UTC(year, month, 0)).getUTCDate());
  }
  const three = /^(\d{1,2})([./ -])(\d{1,2})\2(\d{4}|\d{2})(?!\d)/.exec(text);
  if (three) {
    const [a, b, year] = [Number(three[1]), Number(three[3]), full(three[4] ?? "")];
    // With a slash the order of day and month differs from country to country; with a point it does not.
    if (three[2] === "/" && a <= 12 && b <= 12 && a !== b) return "ambiguous";
    return b > 12 ? dayOf(year, a, b) : dayOf(year, b, a);
  }
  const pair = /^(\d{1,2})[./ -](\d{4})(?!\d)/.exec(text);
  if (!pair) return null;
  const [of, year] = [Number(pair[1]), Number(pair[2])];
  return of >= 1 && of <= 12 ? dayOf(year, of, new Date(Date.UTC(year, of, 0)).getUTCDate()) : null;
}

/** Parts of a list at its commas and semicolons, not at those in brackets, nor in "0,5". */
function listed(text: string): string[] {
  const out = [""];
  let deep = 0;
  for (const [k, sign] of [...text].entries()) {
    if (/[([]/.test(sign)) deep++;
    if (/[)\]]/.test(sign)) deep = Math.max(0, deep - 1);
    if (deep === 0 && /[,;•]/.test(sign) && !/\d,\d/.test([...text].slice(k - 1, k + 2).join(""))) out.push("");
    else out[out.length - 1] += sign;
  }
  return out.map((one) => one.replace(/\s+/g, " ").replace(/^[\s*]+|[\s.*]+$/g, "")).filter((one) => one !== "");
}

/** The food of an item of a list, without its percentage, its number and what is said of it in brackets. */
function foodIn(item: string, language: Language, shelf: Shelf): string | null {
  const bare = item.replace(/\([^)]*\)|\[[^\]]*\]/g, " ").replace(/\d+(?:[.,]\d+)?\s*%|\bE\s?\d{3}[a-z]?\b/gi, " ").replace(/^[^:]*:\s*/, "").replace(/\s+/g, " ").trim(); // prettier-ignore
  if (bare === "") return null;
  const [line] = readRecipe(`100 g ${bare.toLowerCase()}`, "metric", undefined, shelf, undefined, { language }).lines;
  return line?.state === "read" && line.role === "ingredient" ? (line.ingredientId ?? null) : null;
}

/** "rice flour (45 %)", "45 % rice flour"; null where none stands there, or only that of something in it ("cocoa (20 % fat)"). */
function percentIn(item: string): number | null {
  const found = /\(\s*(\d{1,2}(?:[.,]\d)?)\s*%\s*\)|^\s*(\d{1,2}(?:[.,]\d)?)\s*%|\p{L}\s+(\d{1,2}(?:[.,]\d)?)\s*%\s*$/u.exec(item);
  return found ? Number((found[1] ?? found[2] ?? found[3] ?? "").replace(",", ".")) : null;
}

/** What the print on a packet says. Errors: none. */
export function packetPrint(text: string, shelf: Shelf, told?: Language): PacketPrint {
  const flat = text.replace(/\s*\n\s*/g, " ");
  const language = told ?? languageOf(text) ?? "en";
  const open: string[] = [];
  const head = heads.exec(flat);
  const statement = traces.exec(flat)?.[0].trim();
  let list = head ? flat.slice(head.index + head[0].length) : "";
  const at = [statement ? list.indexOf(statement) : -1, list.search(ends), list.search(/\.(?:\s|$)/)].filter((k) => k >= 0);
  if (at.length > 0) list = list.slice(0, Math.min(...at));
  const ingredients = listed(list).map((item) => ({ text: item, id: foodIn(item, language, shelf) }));
  if (!head) open.push("No list of ingredients was found; it begins with a word such as “Ingredients”.");
  for (const { text: item, id } of ingredients) if (id === null) open.push(`“${item}” is not known for certain.`);
  const named = allergensInWords(`${list} ${statement ?? ""}`);
  const held = ingredients.flatMap(({ id }) => shelf.get(id ?? "")?.allergens ?? []);
  const size = /(?<![\d.,])(\d{1,4}(?:[.,]\d{1,3})?)\s?(kg|g)\b(?=\s*(?:e\b|℮|$)|[^,;]*$)/iu.exec(flat.slice(0, head?.index ?? flat.length)) ?? /(?:net(?:to|t)?\s*(?:weight|gewicht|wt)?|f[üu]llmenge|poids net|peso net[ot]o?)\s*:?\s*(\d{1,4}(?:[.,]\d{1,3})?)\s?(kg|g)\b/iu.exec(flat); // prettier-ignore
  const sizeG = size ? Number((size[1] ?? "").replace(",", ".")) * (size[2]?.toLowerCase() === "kg" ? 1000 : 1) : undefined;
  const lot = /\b(?:lot(?:to|e)?(?:\s*(?:no\.?|nr\.?|n°))?|charge|batch)\s*[:.]?\s*([A-Z0-9][A-Z0-9-]{1,30})(?![\w-])/i.exec(flat)?.[1];
  const due = before.exec(flat);
  const date = due ? printedDate(flat.slice(due.index + due[0].length)) : null;
  if (due && (date === null || date === "ambiguous"))
    open.push(`Best before “${flat.slice(due.index + due[0].length).slice(0, 12).trim()}”: ${date === null ? "no date that is known" : "day and month could change places"}.`);
  // A gluten-free mark is a picture; words alone claim it.
  const claims = /\b(?:gluten[- ]free|glutenfrei|sans gluten|sin gluten|senza glutine)\b/iu.test(flat);
  const nutrition = printedTable(text);
  const percents: Record<string, number> = {};
  for (const { text: item, id } of ingredients) {
    const percent = percentIn(item);
    if (id !== null && percent !== null) percents[id] = percent;
  }
  const mayHold = statement !== undefined && /\b(?:gluten|wheat|weizen|bl[ée]|trigo|grano|barley|rye|glutine)\b/iu.test(statement);
  return {
    ingredients,
    allergens: [...new Set([...held, ...named.allergens.map(({ allergen }) => allergen)])],
    ...(statement ? { statement: statement.slice(0, 400) } : {}),
    ...(mayHold ? { gluten: "may-contain" as const } : claims ? { gluten: "claimed" as const } : {}),
    ...(sizeG && sizeG > 0 ? { sizeG } : {}),
    ...(lot ? { lot } : {}),
    ...(date && date !== "ambiguous" ? { bestBefore: date } : {}),
    ...(nutrition ? { nutrition } : {}),
    percents,
    open,
  };
} // prettier-ignore
