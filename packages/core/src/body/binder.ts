import { crumbOf, type Item } from "../formula/resolve";
import type { Ingredient } from "../pantry/ingredient-schema";

export interface Binder {
  /** What binds, the strongest first, such as "egg and xanthan"; "none" where nothing does. */
  kind: string;
  /** What is there over what this kind of bake wants; 1 is enough. */
  adequacy: number;
  /** Grams that bind like so much xanthan, per 100 g of flour. */
  percent: number;
}

const words: Record<string, string> = {
  xanthan: "xanthan",
  guar: "guar",
  "psyllium-husk": "psyllium",
  "ground-flax": "flax",
  chia: "chia",
  egg: "egg",
  "egg-white": "egg white",
  "egg-yolk": "egg yolk",
};

/** Gluten holds a wheat dough without any gum: so much xanthan it is worth per 100 g of wheat flour. */
const GLUTEN_BINDS = 1;

/** g that bind like a gram of xanthan, per gram of an ingredient; gluten counts. */
export const binderPerGram = (ingredient: Ingredient): number =>
  (ingredient.family === "wheat" ? GLUTEN_BINDS : (ingredient.xanthanEquivalent ?? 0)) / 100;

/** g of xanthan that bind like the gums and husks of a batter: not what egg and flours hold besides. */
export const gumIn = (items: readonly Item[]): number =>
  items.reduce((g, { ingredient, massG }) => g + (ingredient.family === "binder" ? massG * binderPerGram(ingredient) : 0), 0);

/** Binding power against what is wanted (in % xanthan on flour). Blends count with what they hold already. */
export function binderOf(items: readonly Item[], wantedPercent: number): Binder {
  const flour = crumbOf(items);
  const parts = items
    .map(({ ingredient, massG }) => ({
      word: words[ingredient.id] ?? (ingredient.family === "wheat" ? "gluten" : ingredient.name.toLowerCase()),
      grams: massG * binderPerGram(ingredient),
    }))
    .filter((part) => part.grams > 0)
    .sort((a, b) => b.grams - a.grams);
  const total = parts.reduce((g, part) => g + part.grams, 0);
  const percent = flour > 0 ? (100 * total) / flour : 0;
  const telling = parts.filter((part) => part.grams >= 0.15 * total).slice(0, 3);
  return {
    kind: total === 0 ? "none" : telling.map((part) => part.word).join(" and "),
    adequacy: wantedPercent > 0 ? percent / wantedPercent : 1,
    percent,
  };
}
