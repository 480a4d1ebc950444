import { type Shelf, builtInShelf } from "./catalogue";
import type { Ingredient } from "./ingredient";

/** Words that describe state, quality or cutting and do not change which ingredient is meant. */
const fillerWords = new Set(
  `fresh freshly organic good quality best large medium small big extra fine finely coarsely roughly thinly chopped diced
  sliced minced crumbled grated shredded peeled cored ripe room temperature temp softened soft melted cold warm hot chilled
  lukewarm tepid cooled boiling of the a an your favourite favorite some more plus about each drained rinsed toasted roasted raw natural
  certified gf unsalted salted unsweetened sweetened pure plain at level heaped whole blanched beaten lightly well very free range level
  gluten-free squeezed packed sifted ground-up leftover firm such as tinned canned`.split(/\s+/),
);

const singular = (word: string): string => {
  if (word.length < 4 || /ss$|us$|is$/.test(word)) return word;
  if (/ies$/.test(word)) return `${word.slice(0, -3)}y`;
  if (/(?:ch|sh|x|s|o)es$/.test(word)) return word.slice(0, -2);
  return /s$/.test(word) ? word.slice(0, -1) : word;
};

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .normalize("NFD")
    .replace(/[\u0300-\u036f]/g, "")
    .replace(/gluten[\s-]free/g, "glutenfree")
    .replace(/all[\s-]purpose/g, "allpurpose")
    .replace(/self[\s-](?:raising|rising)/g, "selfraising")
    .replace(/[^a-z0-9%]+/g, " ")
    .trim()
    .split(" ")
    .filter((word) => word !== "")
    .map(singular);

const isFiller = (word: string): boolean => fillerWords.has(word) || word === "glutenfree";

interface Alias {
  words: string[];
  core: string[];
  ingredient: Ingredient;
}

const indexes = new WeakMap<Shelf, { exact: Map<string, Ingredient>; aliases: Alias[] }>();

function indexOf(shelf: Shelf): { exact: Map<string, Ingredient>; aliases: Alias[] } {
  const known = indexes.get(shelf);
  if (known) return known;
  const exact = new Map<string, Ingredient>();
  const aliases: Alias[] = [];
  for (const ingredient of shelf.all()) {
    for (const text of [...ingredient.aliases, ingredient.name, ingredient.id]) {
      const words = wordsOf(text);
      const core = words.filter((word) => !isFiller(word));
      const key = words.join(" ");
      if (!exact.has(key)) exact.set(key, ingredient);
      aliases.push({ words, core: core.length > 0 ? core : words, ingredient });
    }
  }
  const index = { exact, aliases };
  indexes.set(shelf, index);
  return index;
}

export interface Match {
  ingredient: Ingredient;
  /** 1 for the very words, less for part of them. */
  certainty: number;
}

/**
 * The ingredient that a written name means, or null. The very words win; then the alias that covers the most words of the
 * name, the later in the name the better, since the head noun of an English name stands last.
 */
export function findIngredient(name: string, shelf: Shelf = builtInShelf): Match | null {
  const { exact, aliases } = indexOf(shelf);
  const words = wordsOf(name);
  const same = exact.get(words.join(" "));
  if (same) return { ingredient: same, certainty: 1 };
  const core = words.filter((word) => !isFiller(word));
  if (core.length === 0) return null;
  let best: { alias: Alias; score: number } | null = null;
  for (const alias of aliases) {
    const at = lastRun(words, alias.words);
    const inCore = at >= 0 ? -1 : lastRun(core, alias.core);
    const full = at >= 0;
    if (!full && (inCore < 0 || (alias.core.length !== alias.words.length && !alias.words.every((w) => words.includes(w)))))
      continue;
    const length = full ? alias.words.length : alias.core.length;
    const end = full ? (at + length) / words.length : (inCore + length) / core.length;
    const score = length * 10 + end * 6 + (full ? 0.5 : 0);
    if (!best || score > best.score) best = { alias, score };
  }
  if (!best) return null;
  const covered = best.alias.core.filter((word) => core.includes(word)).length / core.length;
  return { ingredient: best.alias.ingredient, certainty: Math.min(0.95, 0.4 + 0.55 * covered) };
}

/** Where `needle` stands in `hay` as a run of words, the last place, or −1. */
function lastRun(hay: string[], needle: string[]): number {
  for (let at = hay.length - needle.length; at >= 0; at--) {
    if (needle.every((word, i) => hay[at + i] === word)) return at;
  }
  return -1;
}

/** Ingredients for a search box, the best first: name starts, then alias starts, then contains. */
export function searchIngredients(query: string, shelf: Shelf = builtInShelf, limit = 20): Ingredient[] {
  const wanted = wordsOf(query).join(" ");
  if (wanted === "") return shelf.all().slice(0, limit);
  const scored: { ingredient: Ingredient; score: number }[] = [];
  for (const ingredient of shelf.all()) {
    const names = [ingredient.name, ...ingredient.aliases].map((text) => wordsOf(text).join(" "));
    const score = Math.max(
      ...names.map(
        (text, i) =>
          (text === wanted ? 5 : text.startsWith(wanted) ? 4 : text.includes(` ${wanted}`) ? 2 : text.includes(wanted) ? 1 : 0) -
          (i > 0 ? 0.5 : 0),
      ),
    );
    if (score > 0) scored.push({ ingredient, score });
  }
  return scored
    .sort((a, b) => b.score - a.score || a.ingredient.name.localeCompare(b.ingredient.name))
    .slice(0, limit)
    .map((s) => s.ingredient);
}

/** Names that mean different things to different people, and what they may mean; the first is taken until answered. */
export const ambiguousNames: Record<string, string[]> = {
  flour: ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "plain flour": ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "all purpose flour": ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "all-purpose flour": ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "self raising flour": ["gf-blend-self-raising", "wheat-self-raising"],
  "self-raising flour": ["gf-blend-self-raising", "wheat-self-raising"],
  cornflour: ["corn-starch", "cornflour-fine"],
  "potato flour": ["potato-starch", "potato-flour"],
  lemonade: ["citrus-soft-drink", "lemon-juice"],
};
