import type { Shelf } from "./shelf";
import table from "./data/allergen-words.json";
import { allergens as allAllergens } from "./ingredient-words";
import type { Allergen, Ingredient } from "./ingredient-schema";
import { wordsOf } from "./names";

/**
 * The allergens that words name, whatever the pantry knows: fish and celery as well as “almond” before a yoghurt. The longest wording counts,
 * so that buckwheat is no wheat, oat milk no milk and a butternut neither butter nor nut. It rather says one too many than one too few.
 */
export interface NamedAllergen {
  allergen: Allergen;
  /** What it was named by, as the pantry's ids say it: which nut it is. */
  id: string;
}

interface Wording {
  id: string;
  allergens: readonly Allergen[];
  gluten?: "contains" | "oats";
  /** What somebody may be making: in a step only where it is served or crumbled it is put in. */
  bake?: boolean;
}

interface Trie {
  next: Map<string, Trie>;
  ends?: Wording;
}

const known = new Set<string>(allAllergens);
const plants = new Set(table.plants);
const free = table.free as Record<string, string[]>;

const trie: Trie = { next: new Map() };
function put(words: readonly string[], ends: Wording): void {
  let at = trie;
  for (const word of words) {
    let next = at.next.get(word);
    if (!next) at.next.set(word, (next = { next: new Map() }));
    at = next;
  }
  at.ends = ends;
}
interface Row {
  words: string;
  id: string;
  allergens: string[];
  gluten?: "contains" | "oats";
  bake?: boolean;
}
for (const { words, id, allergens, gluten, bake = false } of table.words as Row[]) {
  const wording = {
    id,
    allergens: allergens.filter((one): one is Allergen => known.has(one)),
    bake,
    ...(gluten ? { gluten } : {}),
  };
  // “Cheeses”, “tortillas”: many of them, where the rule for singulars does not know the word.
  for (const form of words.endsWith("s") ? [words] : [words, `${words}s`]) put(wordsOf(form), wording);
}
for (const words of table.safe) put(wordsOf(words), { id: "", allergens: [] });
const heads = new Set(table.heads.map((head) => wordsOf(head).join(" ")));

/** The longest wording that begins at a word, and how many words it has. */
function wordingAt(words: readonly string[], from: number): { wording: Wording; many: number } | null {
  let at: Trie | undefined = trie;
  let best: { wording: Wording; many: number } | null = null;
  for (let k = from; k < words.length && at; k++) {
    at = at.next.get(words[k] ?? "");
    if (at?.ends) best = { wording: at.ends, many: k - from + 1 };
  }
  return best;
}

const MOST_BEFORE = 3;
/** Behind a word: what is free of it, or stands for it. */
const stands = new Set(["free", "alternative", "substitute", "replacer", "replacement"]);
const denies = new Set(["no", "not", "without", "never", "free", "zero"]);

export interface NamedInWords {
  allergens: NamedAllergen[];
  /** A grain that holds gluten is named, or oats. */
  gluten: "contains" | "oats" | null;
}

/** Before a bake that is no bake of this recipe: “serve with naan”, “crumbled amaretti”. */
const putIn = new Set(["with", "crumbled", "crushed", "ground", "leftover", "bought", "fold", "soak", "layer"]);

/** What a text names: allergens, each with the word it was named by, and grains with gluten. In a `step` the names of bakes are what is being made. */
export function allergensInWords(text: string, step = false): NamedInWords {
  const words = wordsOf(text);
  const found = new Map<string, NamedAllergen>();
  let gluten: NamedInWords["gluten"] = null;
  for (let at = 0; at < words.length;) {
    const hit = wordingAt(words, at);
    if (!hit) {
      at++;
      continue;
    }
    const { wording, many } = hit;
    const before = words.slice(Math.max(0, at - MOST_BEFORE), at);
    const spared = new Set(before.flatMap((word) => free[word] ?? []));
    const written = words.slice(at, at + many).join(" ");
    // “Oat milk”, “vegan cream cheese”: what stands before says what it is made of.
    const ofPlants = heads.has(written) && before.slice(-2).some((word) => plants.has(word));
    const denied = stands.has(words[at + many] ?? "") || denies.has(before.at(-1) ?? "") || /^(?:sized?|shaped)$/.test(words[at + many] ?? "") || before.slice(-3).join(" ") === "size of a" || before.slice(-2).join(" ") === "size a"; // prettier-ignore
    const made = step && wording.bake === true && !before.some((word) => putIn.has(word));
    if (!denied && !made) {
      for (const allergen of wording.allergens)
        if (!spared.has(allergen) && !(ofPlants && allergen === "milk")) found.set(`${allergen} ${wording.id}`, { allergen, id: wording.id }); // prettier-ignore
      if (wording.gluten && !spared.has("wheat")) gluten = gluten === "contains" ? gluten : wording.gluten;
    }
    at += many;
  }
  return { allergens: [...found.values()], gluten };
}

const NUTS = "nuts";

/** What words name and a thing does not hold: a match that has fewer allergens than its words is none. */
export function beyond(words: NamedInWords, thing: Pick<Ingredient, "id" | "allergens">): NamedAllergen[] {
  const lacking = words.allergens.filter(({ allergen }) => !thing.allergens.includes(allergen));
  // Which nut it is counts: hazelnuts are no almonds.
  const kernels = words.allergens.filter(({ allergen, id }) => allergen === NUTS && id !== "mixed-nuts" && thing.allergens.includes(NUTS) && !isSameNut(id, thing.id)); // prettier-ignore
  return [...lacking, ...kernels];
}

const isSameNut = (kernel: string, id: string): boolean =>
  id.includes(kernel) ||
  id === "mixed-nuts" ||
  (kernel === "almond" && id === "marzipan") ||
  (kernel === "brazil" && id.startsWith("brazil"));

/** Allergens by the number of an additive, with or without its E. */
export const allergensOfAdditive = (number: string): Allergen[] =>
  ((table.additives as Record<string, string[]>)[number] ?? []).filter((one): one is Allergen => known.has(one));

interface FoodTrie {
  next: Map<string, FoodTrie>;
  ends?: Ingredient;
}
const foodsOf = new WeakMap<Shelf, FoodTrie>();

function foodTrie(shelf: Shelf): FoodTrie {
  const before = foodsOf.get(shelf);
  if (before) return before;
  const root: FoodTrie = { next: new Map() };
  for (const ingredient of shelf.all())
    for (const text of [ingredient.name.replace(/\s*\(.*\)$/, ""), ...ingredient.aliases]) {
      let at = root;
      for (const word of wordsOf(text)) {
        let next = at.next.get(word);
        if (!next) at.next.set(word, (next = { next: new Map() }));
        at = next;
      }
      at.ends ??= ingredient;
    }
  foodsOf.set(shelf, root);
  return root;
}

export interface NamedFood {
  ingredient: Ingredient;
  /** As it was written, in single words. */
  words: string[];
  /** The word behind it. */
  next: string;
  /** The word before it says that another thing may stand in its place. */
  instead: boolean;
}

const instead = /^(?:or|instead|alternatively|substitute|swap|replace|either|use|else)$/;

/** Every food of the pantry that a text names, the longest wording first; what a word denies is not named. */
export function foodsInWords(text: string, shelf: Shelf): NamedFood[] {
  const words = wordsOf(text);
  const root = foodTrie(shelf);
  const found: NamedFood[] = [];
  for (let at = 0; at < words.length;) {
    let node: FoodTrie | undefined = root;
    let best: { ingredient: Ingredient; many: number } | null = null;
    for (let k = at; k < words.length && node; k++) {
      node = node.next.get(words[k] ?? "");
      if (node?.ends) best = { ingredient: node.ends, many: k - at + 1 };
    }
    const safe = best ? wordingAt(words, at) : null;
    if (!best || (safe && safe.many > best.many && safe.wording.id === "")) {
      at += safe ? safe.many : 1;
      continue;
    }
    const before = words.slice(Math.max(0, at - MOST_BEFORE), at);
    if (!denies.has(before.at(-1) ?? "") && words[at + best.many] !== "free")
      found.push({ ingredient: best.ingredient, words: words.slice(at, at + best.many), next: words[at + best.many] ?? "", instead: before.some((word) => instead.test(word)) || words[at + best.many] === "instead" }); // prettier-ignore
    at += best.many;
  }
  return found;
}
