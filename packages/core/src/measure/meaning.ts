import type { WrittenItem } from "./line";
import type { Range } from "./range-schema";
import type { Measurable } from "./weigh";

/** A thing that a name on a line was found to mean. */
export interface Meant {
  ingredientId: string;
  name: string;
  what: Measurable;
}
export interface Found extends Meant {
  /** From 0 to 1; the pantry says how sure it is. */
  certainty: number;
  /** The spelling was put right. */
  respelled: boolean;
}

/** The pantry as the reader asks it. */
export interface Names {
  /** What a name surely means, or null. */
  find: (name: string) => Found | null;
  /** A thing by the very name that the pantry gives it, with its comma ("Beetroot, cooked and puréed"). */
  titled: (name: string) => Meant | null;
  /** What a name that means different things may mean, the assumed one first. */
  mayMean: (name: string) => Meant[];
  /** What may be meant where it is not sure. */
  candidates: (name: string) => Meant[];
  /** What a preparation makes of a thing, with the share of its mass that stays. */
  prepared: (ingredientId: string, said: string) => (Meant & { keeps: Range; weighedAs?: string }) | null;
  /** What a thing sold under one name may hold besides, the assumed one first; empty where it is what it is. */
  mayHold: (ingredientId: string) => Meant[];
  /** What a name means by its very words, spellings aside: for looking everywhere in a text. */
  known: (name: string) => Meant | null;
  /** Whether a word may be one of the name of a thing: most words of a text are not. */
  isNameWord: (word: string) => boolean;
  /** Whether a word changes nothing of which thing is meant. */
  passesOver: (word: string) => boolean;
  /** The share of a can that is left when it is drained. */
  drained: (ingredientId: string, byCount: boolean) => Range;
}

const freeWords = /\b(?:gluten[- ]free|gf|vegan|dairy[- ]free|plant[- ]based|egg[- ]free|non-dairy)\b/i;

/** Names of many things, of which another word says which. */
const generic = /^(?:flour|meal|starch|sugar|oil|milk|drink|vinegar|syrup|juice|seeds?|nuts?|yoghurt|yogurt|salt|chocolate)$/i;

/** The names under which an item may stand in the pantry, the most telling first. */
function spellingsOf({ name, preparation, glosses, alternatives }: WrittenItem): string[] {
  if (name === "") return [];
  const free = preparation === undefined ? null : freeWords.exec(preparation)?.[0];
  const out = free && !freeWords.test(name) ? [`${free} ${name}`] : [];
  out.push(name);
  // "plain" says something of flour and of chocolate, and of nothing else; a spice in powder is a ground one.
  const bare = name.replace(/^(?:plain|unflavou?red)\s+(?!.*\b(?:flour|chocolate)\b)/i, "");
  if (bare !== name) out.push(bare);
  const spice = /^(.+?)\s+powder$/i.exec(name)?.[1];
  if (spice) out.push(`ground ${spice}`);
  // "buckwheat or teff flour": the first goes on as the second does.
  const [other] = alternatives;
  const tail = other?.split(/\s+/) ?? [];
  for (let from = tail.length - 1; from >= 1 && from >= tail.length - 3; from--) out.push(`${name} ${tail.slice(from).join(" ")}`);
  if (preparation && /^(?:ground|powdered|dried|fresh|whole|smoked|white|black|cooked|plain|dark|light)$/i.test(preparation))
    out.unshift(`${preparation} ${name}`);
  // "flour, sorghum", "flour (sorghum)": which one it is stands behind.
  if (generic.test(name)) {
    const said = [preparation, ...glosses].flatMap((which) => which?.split(/\s*[,;]\s*|\s+-\s+/) ?? []).filter((which) => /^\p{L}+(?:[ -]\p{L}+){0,3}$/u.test(which)); // prettier-ignore
    // "flour, gluten free, self raising": together first, then each alone.
    out.unshift(...(said.length > 1 ? [`${said.join(" ")} ${name}`] : []), ...said.map((which) => `${which} ${name}`));
  }
  return [...out, ...glosses.filter((gloss) => gloss.split(" ").length <= 3)];
}

export interface Naming {
  found: Found | null;
  /** Other things that the same word means. */
  mayMean: Meant[];
}

export function nameOf(item: WrittenItem, names: Names): Naming | null {
  for (const spelling of spellingsOf(item)) {
    const options = names.mayMean(spelling);
    if (options[0]) return { found: { ...options[0], certainty: 1, respelled: false }, mayMean: options };
    const found = names.find(spelling);
    if (found) return { found, mayMean: [] };
  }
  return null;
}
