/** What the table on a packet says of 100 g: grams. Labels round, and count salt as 2.5 times the sodium. */
export const nutrients = ["protein", "fat", "sugars", "fibre", "salt"] as const;
export type Nutrient = (typeof nutrients)[number];
export type PrintedTable = Partial<Record<Nutrient, number>>;

const rows: [Nutrient, RegExp][] = [
  ["protein", /(?<!\p{L})(?:proteins?|eiwei(?:ß|ss)|prot[ée]ines?|prote[íi]nas?|proteine)(?!\p{L})/iu],
  ["fat", /(?<!satur\p{L}* )(?<!\p{L})(?:fats?|fett|mati[èe]res? grasses?|lipides|grasas?|grassi)(?!\p{L})/iu],
  ["sugars", /(?<!\p{L})(?:sugars?|zucker|sucres|az[úu]cares|zuccheri)(?!\p{L})/iu],
  ["fibre", /(?<!\p{L})(?:fib(?:re|er)s?|ballaststoffe|fibres?(?: alimentaires)?|fibra(?: alimentaria)?)(?!\p{L})/iu],
  ["salt", /(?<!\p{L})(?:salt|salz|sel|sal|sale)(?!\p{L})/iu],
];
const grams = /(<|less than |weniger als |moins de |menos de |meno di )?\s*(\d{1,3}(?:[.,]\d{1,2})?)\s?g\b/iu;
const table = /\b(?:nutrition\w*|n[äa]hrwert\w*|valeurs? nutri\w*|informaci[óo]n nutri\w*|valori nutri\w*|typical values|je 100 ?g|per 100 ?g|pour 100 ?g|por 100 ?g)\b/iu; // prettier-ignore

/**
 * The table of 100 g in a print: of each row its first number of grams. What is under a limit ("<0.5 g") is half of it. A row whose number cannot be
 * (more than 100 g) is left out; null where there is no table.
 */
export function printedTable(text: string): PrintedTable | null {
  const flat = text.replace(/\s*\n\s*/g, " ");
  const begins = table.exec(flat);
  if (!begins) return null;
  const rest = flat.slice(begins.index);
  const out: PrintedTable = {};
  for (const [nutrient, name] of rows) {
    const row = name.exec(rest);
    const found = row ? grams.exec(rest.slice(row.index + row[0].length, row.index + row[0].length + 48)) : null;
    if (!found) continue;
    const value = Number((found[2] ?? "").replace(",", ".")) * (found[1] ? 0.5 : 1);
    if (value <= 100) out[nutrient] = value;
  }
  return Object.keys(out).length === 0 ? null : out;
}
