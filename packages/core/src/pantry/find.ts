import { builtInShelf } from "./catalogue";
import type { Shelf } from "./shelf";
import type { Ingredient } from "./ingredient-schema";
import { genericHeads, isNeutral, joinable, otherSpellings, spellingOf, telling, wordsOf } from "./names";

/**
 * Which ingredient a written name means, and how surely. The very words win. Otherwise a match must hold the head of the name, which in
 * English stands last, and leave no telling word unexplained: a word that could make it another thing (“vegan”, “dried”, “powder”, the name of
 * another ingredient) is never passed over. What is less sure than `SAFE` is not taken; it is a candidate to be asked about.
 */
export interface Match {
  ingredient: Ingredient;
  /** 1 for the very words, less for a spelling or a word that was passed over. */
  certainty: number;
  /** It was found only after a spelling was put right. */
  respelled?: true;
}

/** From this certainty on a name is taken as read. */
export const SAFE = 0.7;
const RESPELLED = 0.85;
const PASSED_OVER = 0.78;
const DOUBTFUL = 0.4;

interface Entry {
  words: string[];
  core: Set<string>;
  ingredient: Ingredient;
}

interface Index {
  /** By the sorted words, and by the sorted words without neutral ones. */
  exact: Map<string, Ingredient>;
  bare: Map<string, Ingredient>;
  /** The entries that hold a word. */
  byWord: Map<string, Entry[]>;
  vocabulary: Set<string>;
  /** The vocabulary by first letter. */
  byLetter: Map<string, string[]>;
}

const keyOf = (words: Iterable<string>): string => [...new Set(words)].sort().join(" ");
const coreOf = (words: readonly string[]): string[] => words.filter((word) => !isNeutral(word));

const indexes = new WeakMap<Shelf, Index>();

function indexOf(shelf: Shelf): Index {
  const known = indexes.get(shelf);
  if (known) return known;
  const index: Index = { exact: new Map(), bare: new Map(), byWord: new Map(), vocabulary: new Set(), byLetter: new Map() };
  for (const ingredient of shelf.all()) {
    for (const text of [...ingredient.aliases, ingredient.name, ingredient.id]) {
      const words = wordsOf(text);
      const core = coreOf(words);
      if (!index.exact.has(keyOf(words))) index.exact.set(keyOf(words), ingredient);
      if (core.length > 0 && !index.bare.has(keyOf(core))) index.bare.set(keyOf(core), ingredient);
      const entry = { words, core: new Set(core), ingredient };
      for (const word of entry.core) index.byWord.set(word, [...(index.byWord.get(word) ?? []), entry]);
      for (const word of words) index.vocabulary.add(word);
    }
  }
  // Another spelling of a word is as good to be put right to.
  for (const [other, word] of otherSpellings) if (index.vocabulary.has(word)) index.vocabulary.add(other);
  for (const word of index.vocabulary) {
    const letter = word.charAt(0);
    index.byLetter.set(letter, [...(index.byLetter.get(letter) ?? []), word]);
  }
  indexes.set(shelf, index);
  return index;
}

/** Edit distance with neighbours swapped counted once, given up above `most`. */
function distance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let best = Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) best = Math.min(best, (before[j - 2] ?? 0) + 1);
      next.push(best);
    }
    before = row;
    row = next;
  }
  return row[b.length] ?? most + 1;
}

/** No word of a food is longer, nor are two that run together. */
const LONGEST = 24;
/** Letters that a scan takes for others, either way. */
const alike: [RegExp, string][] = [[/rn/g, "m"], [/l/g, "i"], [/i/g, "l"], [/1/g, "l"], [/1/g, "i"], [/0/g, "o"], [/vv/g, "w"], [/cl/g, "d"], [/c/g, "e"], [/5/g, "s"]]; // prettier-ignore
/** The one known word that a scan may have spoiled; null where there is none, or several. */
function asPrinted(word: string, vocabulary: ReadonlySet<string>): string | null {
  if (word.length < 4 || word.length > LONGEST || !/[a-z]/.test(word)) return null;
  const found = new Set<string>();
  for (const [mark, letter] of alike)
    for (const { index, 0: read } of word.matchAll(mark)) {
      const one = word.slice(0, index) + letter + word.slice(index + read.length);
      if (vocabulary.has(one)) found.add(one);
      const all = word.replace(mark, letter);
      if (vocabulary.has(all)) found.add(all);
    }
  const [only] = found;
  return found.size === 1 ? (only ?? null) : null;
}

/** Words that nobody knows put right where one known word is very near; null when nothing changes. */
function respelled(words: readonly string[], { vocabulary, byLetter }: Index): string[] | null {
  let changed = false;
  const next = words.map((word) => {
    if (vocabulary.has(word) || isNeutral(word) || telling.has(word)) return word;
    const scanned = asPrinted(word, vocabulary);
    if (scanned !== null) {
      changed = true;
      return scanned;
    }
    const two = asTwo(word, vocabulary);
    if (two !== null) {
      changed = true;
      return two;
    }
    if (word.length < 5 || /\d/.test(word)) return word;
    const most = word.length >= 9 ? 2 : 1;
    let best: string | null = null;
    let least = most + 1;
    let alone = true;
    for (const known of byLetter.get(word.charAt(0)) ?? []) {
      if (known.length < 4) continue;
      const far = distance(word, known, most);
      if (far < least) {
        least = far;
        best = known;
        alone = true;
      } else if (far === least && far <= most && known !== best) alone = false;
    }
    if (best === null || least > most || !alone) return word;
    changed = true;
    return spellingOf(best);
  });
  return changed ? next.flatMap((word) => word.split(" ")) : null;
}

/** "chiaseeds", "cocoapowder": the two known words that one unknown is made of; null where there are none, or several ways. */
function asTwo(word: string, vocabulary: ReadonlySet<string>): string | null {
  const ways: string[] = [];
  if (word.length > LONGEST) return null;
  for (let at = 3; at <= word.length - 3; at++) {
    const [head, tail] = [word.slice(0, at), wordsOf(word.slice(at)).join(" ")];
    if (vocabulary.has(head) && vocabulary.has(tail) && head.length + tail.length >= 7) ways.push(`${head} ${tail}`);
  }
  return ways.length === 1 ? (ways[0] ?? null) : null;
}

const SHORT = { least: 3, most: 5, ways: 12 };
/** "psy husk", "sorg": a name with a word cut short, where all the words that begin so make one thing; null where they make none, or several. */
function unabbreviated(words: readonly string[], index: Index): Ingredient | null {
  const at = words.findIndex((word) => word.length >= SHORT.least && word.length <= SHORT.most && !index.vocabulary.has(word) && !isNeutral(word) && !/\d/.test(word));
  const word = words[at];
  if (word === undefined) return null;
  const ways = (index.byLetter.get(word.charAt(0)) ?? []).filter((known) => known.startsWith(word) && known.length > word.length + 1);
  if (ways.length === 0 || ways.length > SHORT.ways) return null;
  const meant = new Set(ways.flatMap((way) => whole(words.map((one, k) => (k === at ? spellingOf(way) : one)), index) ?? []));
  const [only] = meant;
  return meant.size === 1 ? (only ?? null) : null;
} // prettier-ignore

/** A flour of the whole seed has its bran: g of fibre in 100 g. */
const WITH_BRAN = 3;
const ground = new Set<Ingredient["family"]>(["flour", "pulse-flour", "nut-flour"]);
/** What has less is called free of sugar: g in 100 g, by the law on such claims. */
const SUGARLESS = 0.5;
const ofWholeSeed = (i: Ingredient): boolean => ground.has(i.family) && i.per100g.fibre >= WITH_BRAN;

/** Words that only say what something is free of, or that it is ground whole; they are borne out or not by what the ingredient holds. */
const freeOf: Record<string, (i: Ingredient) => boolean> = {
  glutenfree: (i) => i.gluten !== "contains",
  vegan: (i) => !i.allergens.includes("milk") && !i.allergens.includes("egg") && i.family !== "meat",
  dairyfree: (i) => !i.allergens.includes("milk"),
  plantbased: (i) => !i.allergens.includes("milk") && !i.allergens.includes("egg"),
  // Its milk is milk: only the sugar of it is parted.
  lactosefree: () => true,
  eggfree: (i) => !i.allergens.includes("egg"),
  sugarfree: (i) => i.per100g.sugars <= SUGARLESS,
  wholegrain: ofWholeSeed,
  wholemeal: ofWholeSeed,
};

const asPuree = new Set(["mashed", "mash", "pureed", "stewed", "pulp", "blitzed", "sieved"].flatMap((word) => wordsOf(word)));

function whole(words: readonly string[], { exact, bare }: Index): Ingredient | null {
  const core = coreOf(words);
  const found = exact.get(keyOf(words)) ?? (core.length > 0 ? bare.get(keyOf(core)) : undefined);
  if (found) return found;
  // "Mashed mango", "strawberry pulp": a purée of it, where there is one.
  const thing = core.filter((word) => !asPuree.has(word) && word !== "cooked");
  if (thing.length > 0 && core.some((word) => asPuree.has(word))) {
    const puree = exact.get(keyOf([...thing, "puree"])) ?? bare.get(keyOf([...thing, "puree"]));
    if (puree) return puree;
    const itself = exact.get(keyOf(thing));
    if (itself?.family === "puree") return itself;
  }
  // “Gluten-free baking powder” is baking powder, where that holds none.
  const free = core.filter((word) => freeOf[word]);
  if (free.length === 0) return null;
  const rest = core.filter((word) => !freeOf[word]);
  const without = rest.length > 0 ? (exact.get(keyOf(rest)) ?? bare.get(keyOf(rest))) : undefined;
  return without && free.every((word) => freeOf[word]?.(without)) ? without : null;
}

/** How surely an entry that holds part of the words is meant. */
function partly(entry: Entry, core: readonly string[], head: string, vocabulary: ReadonlySet<string>): number {
  if (!entry.core.has(head)) return 0;
  const left = core.filter((word) => !entry.core.has(word) && !(freeOf[word]?.(entry.ingredient) ?? false));
  if (left.length === 0) return 0.9;
  const doubtful = left.some((word) => freeOf[word] || telling.has(word) || vocabulary.has(word));
  return doubtful || genericHeads.has(head) ? DOUBTFUL - 0.02 * left.length : PASSED_OVER - 0.03 * left.length;
}

/** Every ingredient that a name may mean, the surest first. */
export function matchesOf(name: string, shelf: Shelf = builtInShelf, most = 5): Match[] {
  const index = indexOf(shelf);
  const words = wordsOf(name);
  const same = whole(words, index);
  if (same) return [{ ingredient: same, certainty: 1 }];
  const right = respelled(words, index);
  const mended = right && whole(right, index);
  if (mended) return [{ ingredient: mended, certainty: RESPELLED, respelled: true }];
  const meant = unabbreviated(words, index);
  if (meant) return [{ ingredient: meant, certainty: RESPELLED, respelled: true }];
  const core = coreOf(right ?? words);
  const head = core.at(-1);
  if (head === undefined) return [];
  const best = new Map<Ingredient, { certainty: number; size: number }>();
  for (const entry of index.byWord.get(head) ?? []) {
    if (![...entry.core].every((word) => core.includes(word))) continue;
    const certainty = partly(entry, core, head, index.vocabulary);
    if (certainty <= 0) continue;
    const before = best.get(entry.ingredient);
    if (!before || certainty > before.certainty) best.set(entry.ingredient, { certainty, size: entry.core.size });
  }
  const found = [...best]
    .sort(([, a], [, b]) => b.certainty - a.certainty || b.size - a.size)
    .slice(0, most)
    .map(([ingredient, { certainty }]): Match => ({ ingredient, certainty, ...(right ? { respelled: true as const } : {}) }));
  return found;
}

/** What may be meant by a name that is not sure: near matches, and what shares its words. */
export function candidatesOf(name: string, shelf: Shelf = builtInShelf, most = 4): Ingredient[] {
  const out = new Set(matchesOf(name, shelf, most).map(({ ingredient }) => ingredient));
  const { byWord } = indexOf(shelf);
  const core = coreOf(wordsOf(name));
  const shared = new Map<Ingredient, number>();
  for (const entry of new Set(core.flatMap((word) => byWord.get(word) ?? []))) {
    const weight = core.reduce((sum, word) => sum + (entry.core.has(word) ? (genericHeads.has(word) ? 0.4 : 1) : 0), 0);
    if (weight > 0) shared.set(entry.ingredient, Math.max(shared.get(entry.ingredient) ?? 0, weight / Math.sqrt(entry.core.size)));
  }
  for (const [ingredient] of [...shared].sort(([, a], [, b]) => b - a)) {
    if (out.size >= most) break;
    out.add(ingredient);
  }
  // What holds gluten stands last: nobody should take it by a slip.
  return [...out].slice(0, most).sort((a, b) => Number(a.gluten === "contains") - Number(b.gluten === "contains"));
}

/** The ingredient that a written name surely means, or null. */
export function findIngredient(name: string, shelf: Shelf = builtInShelf): Match | null {
  const [first] = matchesOf(name, shelf, 1);
  return first && first.certainty >= SAFE ? first : null;
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
          (i > 0 ? 0.5 : 0) +
          // The flour is what a baker means by a grain.
          (ingredient.family === "flour" && ingredient.behaviour === "powder" ? 0.1 : 0),
      ),
    );
    if (score > 0.2) scored.push({ ingredient, score });
  }
  return scored
    .sort((a, b) => b.score - a.score || a.ingredient.name.localeCompare(b.ingredient.name))
    .slice(0, limit)
    .map((s) => s.ingredient);
}

/** Names that mean different things to different people, and what they may mean; the first is taken until answered. Keys by `wordsOf`. */
const ambiguous: Record<string, string[]> = {
  flour: ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "flour plain": ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "flour white": ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "allpurpose flour": ["gf-blend-plain", "gf-blend-gum", "wheat-flour"],
  "bread flour": ["gf-bread-mix", "wheat-flour"],
  "flour selfraising": ["gf-blend-self-raising", "wheat-self-raising"],
  "bread flour glutenfree": ["gf-bread-mix", "gf-blend-gum"],
  "flour glutenfree": ["gf-blend-plain", "gf-blend-gum"],
  "flour glutenfree plain": ["gf-blend-plain", "gf-blend-gum"],
  "flour glutenfree white": ["gf-blend-plain", "gf-blend-gum"],
  "allpurpose flour glutenfree": ["gf-blend-plain", "gf-blend-gum"],
  "baking flour glutenfree": ["gf-blend-plain", "gf-blend-gum"],
  "glutenfree mix": ["gf-blend-plain", "gf-blend-gum", "gf-bread-mix"],
  "glutenfree mix white": ["gf-blend-plain", "gf-blend-gum", "gf-bread-mix"],
  "glutenfree mix plain": ["gf-blend-plain", "gf-blend-gum"],
  "flour glutenfree onetoone": ["gf-blend-gum", "gf-blend-plain"],
  "baking flour glutenfree onetoone": ["gf-blend-gum", "gf-blend-plain"],
  "flour onetoone": ["gf-blend-gum", "gf-blend-plain"],
  cornflour: ["corn-starch", "cornflour-fine"],
  "corn flour": ["cornflour-fine", "corn-starch", "masa-harina"],
  "flour potato": ["potato-starch", "potato-flour"],
  lemonade: ["citrus-soft-drink", "lemon-juice"],
  oil: ["vegetable-oil", "sunflower-oil", "olive-oil"],
  "dairyfree milk": ["oat-milk", "soy-milk", "almond-milk", "coconut-drink"],
  "milk plant": ["oat-milk", "soy-milk", "almond-milk", "coconut-drink"],
  "milk vegan": ["oat-milk", "soy-milk", "almond-milk", "coconut-drink"],
  "milk plantbased": ["oat-milk", "soy-milk", "almond-milk", "coconut-drink"],
  "choice dairyfree milk": ["oat-milk", "soy-milk", "almond-milk", "coconut-drink"],
  "choice milk plant": ["oat-milk", "soy-milk", "almond-milk", "coconut-drink"],
  "dairyfree yoghurt": ["vegan-yoghurt", "coconut-yoghurt"],
  "vegan yoghurt": ["vegan-yoghurt", "coconut-yoghurt"],
  cream: ["double-cream", "single-cream"],
  nut: ["mixed-nuts", "walnuts", "pecans"],
  berry: ["blueberries", "raspberries", "strawberries"],
  curd: ["plain-yoghurt", "quark"],
  "curd thick": ["plain-yoghurt", "greek-yoghurt"],
};

const titles = new WeakMap<Shelf, Map<string, Ingredient>>();

/** The ingredient that has this very name, whatever its case; null where none has. */
export function titledIngredient(name: string, shelf: Shelf = builtInShelf): Ingredient | null {
  let byTitle = titles.get(shelf);
  if (!byTitle) {
    byTitle = new Map(shelf.all().map((each) => [each.name.toLowerCase(), each]));
    titles.set(shelf, byTitle);
  }
  return byTitle.get(name.toLowerCase()) ?? null;
}

/** What a name that means different things may mean, the assumed one first; empty when it is clear. */
export function mayMean(name: string, shelf: Shelf = builtInShelf): Ingredient[] {
  const words = wordsOf(name);
  const ids = ambiguous[keyOf(words)] ?? ambiguous[keyOf(coreOf(words))] ?? [];
  return ids.flatMap((id) => shelf.get(id) ?? []);
}

const plainWords = new WeakMap<Shelf, Map<string, boolean>>();

/** Whether a word may stand in the name of an ingredient. Quick, for most words of a text may not. */
export function isNameWord(word: string, shelf: Shelf = builtInShelf): boolean {
  let kept = plainWords.get(shelf);
  if (!kept) plainWords.set(shelf, (kept = new Map()));
  const before = kept.get(word);
  if (before !== undefined) return before;
  if (kept.size > 20_000) kept.clear();
  const { vocabulary } = indexOf(shelf);
  const words = wordsOf(word);
  const is =
    joinable.has(word) ||
    isNeutral(word) ||
    words.length > 1 ||
    words.every((one) => vocabulary.has(one) || isNeutral(one) || one.length < 3);
  kept.set(word, is);
  return is;
}

/** Words that join, and name nothing by themselves. */
const joints = new Set("and or with in for to from on by as is it".split(" "));

/** The ingredient that bears a name as it is written, or whose name may mean it; nothing is put right or passed over. Quick, for looking everywhere in a text. */
export function knownIngredient(name: string, shelf: Shelf = builtInShelf): Ingredient | null {
  const index = indexOf(shelf);
  const words = wordsOf(name);
  if (!words.some((word) => index.vocabulary.has(word) && !isNeutral(word) && !joints.has(word))) return null;
  return mayMean(name, shelf)[0] ?? whole(words, index);
}
