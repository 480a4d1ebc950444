import { z } from "zod";

export const measureSystems = ["us", "metric", "uk", "au"] as const;
export const measuresSchema = z.enum(measureSystems);
export type Measures = z.infer<typeof measuresSchema>;

export const unitIds = [
  "g", "kg", "mg", "oz", "lb",
  "ml", "cl", "dl", "l", "fl-oz", "cup", "tbsp", "dsp", "tsp", "pint", "quart", "pinch", "dash", "drop",
  "stick", "piece", "can", "packet",
  "gill", "spoonful", "handful", "knob", "splash", "glug", "dollop", "sprinkle", "scoop", "thumb", "lump",
] as const; // prettier-ignore
export const unitSchema = z.enum(unitIds);
export type UnitId = z.infer<typeof unitSchema>;

/** Grams in one unit of mass. Ounce and pound by definition. */
export const gramsPer: Partial<Record<UnitId, number>> = {
  g: 1,
  kg: 1000,
  mg: 0.001,
  oz: 28.349523,
  lb: 453.59237,
  /** A quarter of a US pound of butter. */
  stick: 113.398,
};

type PerSystem = Record<Measures, number>;
const everywhere = (ml: number): PerSystem => ({ us: ml, metric: ml, uk: ml, au: ml });

/**
 * Millilitres in one unit of volume, by system. US customary and imperial units by definition; the metric cup, the
 * 15 mL and the Australian 20 mL tablespoon by national standards. Pinch and dash are kitchen habit (1/16 and 1/8 tsp).
 */
export const millilitresPer: Partial<Record<UnitId, PerSystem>> = {
  ml: everywhere(1),
  cl: everywhere(10),
  dl: everywhere(100),
  l: everywhere(1000),
  "fl-oz": { us: 29.5735, metric: 29.5735, uk: 28.4131, au: 28.4131 },
  cup: { us: 236.588, metric: 250, uk: 250, au: 250 },
  tbsp: { us: 14.7868, metric: 15, uk: 15, au: 20 },
  dsp: everywhere(10),
  tsp: { us: 4.92892, metric: 5, uk: 5, au: 5 },
  pint: { us: 473.176, metric: 473.176, uk: 568.261, au: 568.261 },
  quart: { us: 946.353, metric: 946.353, uk: 1136.52, au: 1136.52 },
  pinch: everywhere(0.31),
  dash: everywhere(0.62),
  drop: everywhere(0.05),
  gill: { us: 118.294, metric: 118.294, uk: 142.065, au: 142.065 },
  spoonful: { us: 18, metric: 18, uk: 18, au: 22 },
  handful: everywhere(75),
  knob: everywhere(15),
  splash: everywhere(10),
  glug: everywhere(20),
  dollop: everywhere(30),
  sprinkle: everywhere(0.6),
  scoop: everywhere(45),
  thumb: everywhere(15),
  lump: everywhere(35),
};

/**
 * Units that are spoken, not measured: how far what people mean by one lies from the middle. Kitchen habit, confidence C; a line that uses
 * one is marked as estimated.
 */
export const spokenSpread: Partial<Record<UnitId, { low: number; high: number }>> = {
  pinch: { low: 0.6, high: 1.6 },
  dash: { low: 0.6, high: 1.6 },
  spoonful: { low: 0.6, high: 1.6 },
  handful: { low: 0.55, high: 1.6 },
  knob: { low: 0.45, high: 1.8 },
  splash: { low: 0.35, high: 2 },
  glug: { low: 0.4, high: 1.9 },
  dollop: { low: 0.45, high: 1.9 },
  sprinkle: { low: 0.4, high: 2.5 },
  scoop: { low: 0.5, high: 1.6 },
  thumb: { low: 0.45, high: 1.8 },
  lump: { low: 0.5, high: 1.7 },
};
export const isSpoken = (unit: UnitId): boolean => spokenSpread[unit] !== undefined;

export const isMass = (unit: UnitId): boolean => gramsPer[unit] !== undefined;
export const isVolume = (unit: UnitId): boolean => millilitresPer[unit] !== undefined;

/** Spellings as people write them, lower case, without full stops. `T` and `t` are told apart before lower-casing. */
const spellings: Record<UnitId, string[]> = {
  g: ["g", "gr", "gm", "gms", "gram", "grams", "gramme", "grammes"],
  kg: ["kg", "kgs", "kilo", "kilos", "kilogram", "kilograms", "kilogramme", "kilogrammes"],
  mg: ["mg", "milligram", "milligrams"],
  oz: ["oz", "ozs", "ounce", "ounces"],
  lb: ["lb", "lbs", "pound", "pounds"],
  ml: ["ml", "mls", "millilitre", "millilitres", "milliliter", "milliliters", "cc"],
  cl: ["cl", "centilitre", "centilitres", "centiliter", "centiliters"],
  dl: ["dl", "decilitre", "decilitres", "deciliter", "deciliters"],
  l: ["l", "litre", "litres", "liter", "liters"],
  "fl-oz": ["fl oz", "floz", "fl ozs", "fluid ounce", "fluid ounces"],
  cup: ["cup", "cups", "c", "cupful", "cupfuls", "cupsful", "teacup", "teacups", "mug", "mugs"],
  tbsp: [
    "tbsp",
    "tbsps",
    "tbs",
    "tbl",
    "tbls",
    "tblsps",
    "tablsp",
    "soupspoon",
    "soupspoons",
    "tablespoon",
    "tablespoons",
    "tablespoonful",
    "tablespoonfuls",
    "tblsp",
  ],
  dsp: ["dsp", "dsps", "dstspn", "dessertsp", "dessertspoon", "dessertspoons", "dessertspoonful"],
  tsp: ["tsp", "tsps", "teaspoon", "teaspoons", "teaspoonful", "teaspoonfuls"],
  pint: ["pint", "pints", "pt", "pts"],
  quart: ["quart", "quarts", "qt", "qts"],
  pinch: ["pinch", "pinches"],
  dash: ["dash", "dashes"],
  drop: ["drop", "drops"],
  stick: ["stick", "sticks"],
  piece: ["piece", "pieces", "pc", "pcs"],
  can: ["can", "cans", "tin", "tins"],
  packet: [
    "packet",
    "packets",
    "pack",
    "packs",
    "sachet",
    "sachets",
    "package",
    "packages",
    "pot",
    "pots",
    "tub",
    "tubs",
    "carton",
    "cartons",
    "bag",
    "bags",
    "box",
    "boxes",
    "jar",
    "jars",
    "bottle",
    "bottles",
    "bar",
    "bars",
    "block",
    "blocks",
    "envelope",
    "envelopes",
    "punnet",
    "punnets",
    "pouch",
    "pouches",
  ],
  gill: ["gill", "gills"],
  spoonful: ["spoonful", "spoonfuls", "spoon", "spoons"],
  handful: ["handful", "handfuls", "fistful", "fistfuls"],
  knob: ["knob", "knobs", "pat", "pats"],
  splash: ["splash", "splashes", "squeeze", "squirt", "drizzle", "slosh"],
  glug: ["glug", "glugs"],
  dollop: ["dollop", "dollops", "blob", "blobs"],
  sprinkle: [
    "sprinkle",
    "sprinkles",
    "sprinkling",
    "shake",
    "shakes",
    "grating",
    "gratings",
    "grind",
    "grinds",
    "dusting",
    "twist",
    "twists",
  ],
  scoop: ["scoop", "scoops"],
  thumb: ["thumb", "thumbs"],
  lump: ["lump", "lumps", "chunk", "hunk"],
};

const bySpelling = new Map<string, UnitId>(unitIds.flatMap((id) => spellings[id].map((word): [string, UnitId] => [word, id])));

/** The unit a word stands for, or null. `T` alone is a tablespoon and `t` a teaspoon, as hand-written cards have it. */
export function unitOf(word: string): UnitId | null {
  if (word === "T" || word === "Tb") return "tbsp";
  if (word === "t") return "tsp";
  return bySpelling.get(word.toLowerCase().replace(/\./g, "").replace(/\s+/g, " ").trim()) ?? null;
}

/** How a unit is written beside an amount. */
export const unitLabel: Record<UnitId, string> = {
  g: "g", kg: "kg", mg: "mg", oz: "oz", lb: "lb", ml: "mL", cl: "cL", dl: "dL", l: "L", "fl-oz": "fl oz", cup: "cup",
  tbsp: "tbsp", dsp: "dsp", tsp: "tsp", pint: "pint", quart: "quart", pinch: "pinch", dash: "dash", drop: "drop",
  stick: "stick", piece: "piece", can: "can", packet: "packet", gill: "gill", spoonful: "spoonful", handful: "handful", knob: "knob",
  splash: "splash", glug: "glug", dollop: "dollop", sprinkle: "sprinkle", scoop: "scoop", thumb: "thumb", lump: "lump",
}; // prettier-ignore

export const celsiusFromFahrenheit = (f: number): number => ((f - 32) * 5) / 9;
export const fahrenheitFromCelsius = (c: number): number => (c * 9) / 5 + 32;

/** Gas marks by the usual table: mark 1 is 140 °C, mark 4 is 178 °C, about 13.5 K a mark. */
export const celsiusFromGasMark = (mark: number): number => (mark < 1 ? 110 + 20 * mark : 124 + 13.6 * mark);
