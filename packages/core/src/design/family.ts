import { z } from "zod";
import { CoreError } from "../errors";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import type { Ingredient } from "../pantry/ingredient-schema";
import { compose, type Line, type Mix, stockOf } from "./compose";
import type { Style } from "./style";
import { type Designs, design, designSchema, judged, shown, stylesOf } from "./design";
import type { Wish } from "./wish-schema";

const lineSchema = z.object({ ingredientId: z.string(), grams: z.number() });

export const familySchema = z.object({
  /** One kilogram of the dry mix that all of them share. */
  mix: z.array(lineSchema),
  products: z.array(z.object({ name: z.string(), design: designSchema })),
  /** What could not be made of the mix, and why. */
  left: z.array(z.object({ name: z.string(), why: z.string() })),
  /** Everything for one batch of each. */
  shopping: z.array(lineSchema),
  missing: z.object({ ingredientIds: z.array(z.string()), why: z.string() }).optional(),
});
export type BakeFamily = z.infer<typeof familySchema>;

/** What makes a product of the plain base: one of these of each row, as a share of the flour, and a wish beside it. */
interface Product {
  name: string;
  adds: { oneOf: readonly string[]; perFlour: number }[];
  wish: Partial<Wish>;
}

const PRODUCTS: readonly Product[] = [
  { name: "Plain", adds: [], wish: {} },
  { name: "With fruit", adds: [{ oneOf: ["blueberries", "raspberries", "apple", "pear", "raisins"], perFlour: 0.35 }], wish: {} },
  {
    name: "Savoury",
    adds: [
      { oneOf: ["cheddar", "vegan-cheese", "sun-dried-tomatoes"], perFlour: 0.22 },
      { oneOf: ["chives", "fresh-herbs"], perFlour: 0.04 },
    ],
    wish: { variant: "savoury" },
  },
  { name: "With cocoa", adds: [{ oneOf: ["cocoa-alkalised", "cocoa-natural"], perFlour: 0.1 }], wish: { sweet: 0.6 } },
  { name: "With seeds, without nuts", adds: [{ oneOf: ["pumpkin-seeds", "sunflower-seeds"], perFlour: 0.2 }], wish: {} },
];

const KILO = 1000;
/** What of a line is part of a dry mix. */
const dry = ({ family }: Ingredient): boolean => family === "binder" || family === "leavener" || family === "salt";

/**
 * Plain, with fruit, savoury, with cocoa and with seeds from one dry mix: the mix is that of the plain design, without nuts, and each product is composed
 * upon it, baked and sound by itself; what the mix cannot carry is left out and told. Throws as `design` does.
 */
export function family(wish: Wish, shelf: Shelf = builtInShelf): BakeFamily {
  const nutless: Wish = { ...wish, lift: "powder", avoid: [...new Set([...(wish.avoid ?? []), "nuts" as const])] };
  const found: Designs = design(nutless, shelf);
  const [plain] = found.designs;
  if (!plain) return { mix: [], products: [], left: [], shopping: [], ...(found.missing ? { missing: found.missing } : {}) };
  // The style of the plain design, whose mix it is: with powder in it, and nothing sour that would ask for soda.
  const its = stylesOf(nutless).find(({ id }) => id === plain.id);
  if (!its) return { mix: [], products: [], left: [], shopping: [] };
  const style: Style = { ...its, lift: "powder", sour: false };
  const composedPlain = compose(nutless, style, stockOf(nutless, shelf), shelf);
  if ("lack" in composedPlain) return { mix: [], products: [], left: [], shopping: [] };
  const { blend, lines } = composedPlain;
  const flours = new Set(blend.map(({ flour }) => flour.id));
  const flourG = lines.reduce((all, { ingredientId, grams }) => all + (flours.has(ingredientId) ? grams : 0), 0);
  const per = lines.flatMap(({ ingredientId, grams }) => {
    const one = shelf.get(ingredientId);
    return one && dry(one) ? [{ ingredientId, perFlour: grams / flourG }] : [];
  });
  const mix: Mix = { blend, per };
  const products: BakeFamily["products"] = [];
  const left: BakeFamily["left"] = [];
  for (const { name, adds, wish: besides } of PRODUCTS) {
    const added = adds.flatMap(({ oneOf, perFlour }) => {
      const id = oneOf.find((one) => !(shelf.get(one)?.allergens ?? []).some((allergen) => nutless.avoid?.includes(allergen)));
      return id === undefined ? [] : [{ ingredientId: id, grams: Math.round(perFlour * flourG) }];
    });
    const wanted: Wish = { ...nutless, ...besides, ...(added.length > 0 ? { useUp: added } : {}) };
    const made = product(wanted, style, mix, shelf);
    if (typeof made === "string") left.push({ name, why: made });
    else products.push({ name, design: { ...made, title: name } });
  }
  const whole = 1 + per.reduce((all, { perFlour }) => all + perFlour, 0);
  return {
    mix: [
      ...blend.map(({ flour, share }) => ({ ingredientId: flour.id, grams: Math.round((KILO * share) / whole) })),
      ...per.map(({ ingredientId, perFlour }) => ({ ingredientId, grams: Math.round((10 * KILO * perFlour) / whole) / 10 })),
    ],
    products,
    left,
    shopping: shoppingOf(products.map(({ design: { lines: needed } }) => needed)),
  };
}

function product(wish: Wish, style: Style, mix: Mix, shelf: Shelf): BakeFamily["products"][number]["design"] | string {
  const stock = stockOf(wish, shelf);
  let why = "";
  // Where it stands in the way, a little more or less liquid is tried.
  for (const moist of [wish.moist ?? 0.5, 0.2, 0.8]) {
    try {
      const composed = compose({ ...wish, moist }, style, stock, shelf, mix);
      if ("lack" in composed) return `It needs ${composed.lack.what}.`;
      const judgement = judged(composed, wish, stock, shelf, false);
      if (!("why" in judgement)) return shown(style, judgement, null, stock, wish, shelf);
      ({ why } = judgement);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      why = error.message;
    }
  }
  return why;
}

function shoppingOf(all: readonly (readonly Line[])[]): Line[] {
  const sums = new Map<string, number>();
  for (const { ingredientId, grams } of all.flat()) sums.set(ingredientId, (sums.get(ingredientId) ?? 0) + grams);
  return [...sums].map(([ingredientId, grams]) => ({ ingredientId, grams: Math.round(10 * grams) / 10 }));
}
