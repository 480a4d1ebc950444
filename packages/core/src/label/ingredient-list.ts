import { z } from "zod";
import type { Range } from "../measure/range-schema";
import { type Item, massOf } from "../formula/resolve";
import { powders } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { genericHeads, isNeutral, telling, wordsOf } from "../pantry/names";
import { allergensInWords, allergensOfAdditive, type NamedAllergen } from "../pantry/allergen-words";
import type { LeaveningAcidId } from "../pantry/ingredient-words";
import type { Allergen, Ingredient } from "../pantry/ingredient-schema";
import additiveTable from "./data/additives.json";
import { nutNames, type Region } from "./regions";

export const spanSchema = z.object({ text: z.string(), strong: z.boolean() });
export type Span = z.infer<typeof spanSchema>;

interface Additive {
  class: string;
  name: string;
  number: string;
  common: string;
}
const additives = additiveTable.additives as Record<string, Additive>;
const unopened = new Set<string>(additiveTable.unopened);

/** An additive as the region writes it. */
function additiveText(id: string, region: Region): string | null {
  const additive = additives[id];
  if (!additive) return null;
  if (region.additives === "name") return additive.common;
  return `${additive.class} (${region.additives === "number" ? additive.number : additive.name})`;
}

/** The parts of a baking powder in falling order, as the region writes them. */
function powderText(ingredient: Ingredient, region: Region): string | null {
  const powder = powders.get(ingredient.leavening?.powder ?? ("" as never));
  if (!powder) return null;
  const acids = Object.entries(powder.acids) as [LeaveningAcidId, number][];
  const parts: [string, number][] = [["soda", powder.soda], ...acids];
  const starch = 1 - parts.reduce((sum, [, share]) => sum + share, 0);
  const named = [...parts, ["starch", starch] as [string, number]].sort((a, b) => b[1] - a[1]);
  const name = (id: string): string => (id === "starch" ? additiveTable.starchOfPowder : region.additives === "number" ? (additives[id]?.number ?? id) : region.additives === "name" ? (additives[id]?.common ?? id) : (additives[id]?.name ?? id));
  const names = [...new Set(named.map(([id]) => name(id)))];
  if (region.additives === "name") return `baking powder (${names.join(", ")})`;
  const raising = names.filter((one) => one !== additiveTable.starchOfPowder);
  return `raising agents (${raising.join(", ")}), ${additiveTable.starchOfPowder}`;
} // prettier-ignore

/** The name on a label: without what only tells bakers apart. */
const plainName = ({ name }: Ingredient): string => name.replace(/,\s.*$/, "").replace(/\s*\(.*\)$/, "").toLowerCase(); // prettier-ignore

/** How an allergen of an ingredient is told; `asked` where the law asks for it. */
export interface Told {
  allergen: Allergen | "oats";
  /** In the list of ingredients. */
  word: string;
  /** In the statement under it. */
  statement: string;
  asked: boolean;
}

/** What is told of allergens: an ingredient, or a word that names one. */
export type Holder = Pick<Ingredient, "id" | "allergens" | "gluten">;

/** The words by which this region tells the allergens of an ingredient; a nut by its own name. */
export function allergenWords(holder: Holder, region: Region): Told[] {
  const told = holder.allergens.flatMap((allergen): Told[] => {
    if (allergen === "nuts") {
      const kernel = Object.keys(nutNames).find((part) => holder.id.includes(part));
      if (kernel !== undefined && region.notNuts.includes(kernel)) return [];
      const word = kernel === undefined ? "nuts" : (nutNames[kernel] ?? "nuts");
      return [{ allergen, word, statement: word, asked: true }];
    }
    const word = region.allergens[allergen];
    const also = region.alsoName?.[allergen];
    if (word !== undefined) return [{ allergen, word, statement: region.statement?.[allergen] ?? word, asked: true }];
    return also === undefined ? [] : [{ allergen, word: also, statement: also, asked: false }];
  });
  const oats = holder.gluten === "oats" ? region.allergens.oats : undefined;
  return oats === undefined
    ? told
    : [...told, { allergen: "oats", word: oats, statement: region.statement?.oats ?? oats, asked: true }];
}

/** What is known of a thing beside what the pantry has: what its packet says it is made of, what the words on its line name. */
export interface Beside {
  /** What stood in brackets behind it: it replaces the usual composition. */
  composition?: string;
  /** Allergens that the words of its line name and the pantry's thing does not hold. */
  named: readonly NamedAllergen[];
}

const asHolder = ({ allergen, id }: NamedAllergen): Holder => ({ id, allergens: [allergen], gluten: "free" });

/** The holders of allergens in a composition as it is printed, additives by number too. */
export function holdersIn(composition: string): Holder[] {
  const { allergens, gluten } = allergensInWords(composition);
  const numbers = [...composition.matchAll(/\bE?\s?-?(\d{3,4})[a-i]?\b/gi)].flatMap(([, number = ""]) => allergensOfAdditive(number).map((allergen) => ({ allergen, id: number }))); // prettier-ignore
  const oats: Holder[] = gluten === "oats" ? [{ id: "rolled-oats", allergens: [], gluten: "oats" }] : [];
  return [...[...allergens, ...numbers].map(asHolder), ...oats];
}

/** Everything that a thing tells of allergens, in this region's words. */
export function toldOf(ingredient: Ingredient, beside: Beside | undefined, region: Region): Told[] {
  const holders = beside?.composition === undefined ? [ingredient] : holdersIn(beside.composition);
  const all = [...holders, ...(beside?.named ?? []).map(asHolder)].flatMap((holder) => allergenWords(holder, region));
  return [...new Map(all.map((told) => [`${told.allergen} ${told.word}`, told])).values()];
}

const singular = (word: string): string =>
  word
    .replace(/ nuts$/, "")
    .replace(/s$/, "")
    .toLowerCase();

/** A name with its allergens set off in it, or behind it in brackets where it does not say them. */
function spansOf(name: string, words: readonly string[]): Span[] {
  let spans: Span[] = [{ text: name, strong: false }];
  const missing: string[] = [];
  for (const word of words) {
    const at = spans.findIndex(({ text, strong }) => !strong && text.toLowerCase().includes(singular(word)));
    const span = spans[at];
    if (!span) {
      missing.push(word);
      continue;
    }
    const from = span.text.toLowerCase().indexOf(singular(word));
    // A whole word: the rest of it goes with it.
    const tail = /^\p{L}*/u.exec(span.text.slice(from + singular(word).length))?.[0] ?? "";
    const to = from + singular(word).length + tail.length;
    spans = [
      ...spans.slice(0, at),
      { text: span.text.slice(0, from), strong: false },
      { text: span.text.slice(from, to), strong: true },
      { text: span.text.slice(to), strong: false },
      ...spans.slice(at + 1),
    ].filter(({ text }) => text !== "");
  }
  if (missing.length === 0) return spans;
  return [
    ...spans,
    { text: " (", strong: false },
    ...missing.flatMap((word, k) => [...(k > 0 ? [{ text: ", ", strong: false }] : []), { text: word, strong: true }]),
    { text: ")", strong: false },
  ];
}

export interface Listed {
  ingredientId: string;
  /** By which it stands in the list: as it went in, g; water as the region counts it. */
  massG: number;
  spans: Span[];
  /** It is made of several things that only its packet names. */
  unopened: boolean;
}

/** A composition with its additives as the region writes them. */
const compositionText = (composition: string, region: Region): string =>
  composition.replace(/\bE\s?-?(\d{3,4})([a-i]?)\b/gi, (whole, number: string) => {
    const additive = Object.values(additives).find((one) => one.number === number);
    return !additive ? whole : region.additives === "number" ? additive.number : region.additives === "name" ? additive.common : additive.name; // prettier-ignore
  });

/** The name of a thing as the list has it, compound things with what they are made of in brackets. */
function nameOn(ingredient: Ingredient, beside: Beside | undefined, region: Region, shelf: Shelf): string {
  if (beside?.composition !== undefined) return `${plainName(ingredient)} (${compositionText(beside.composition, region)})`;
  const powder = powderText(ingredient, region);
  if (powder !== null && ingredient.family === "leavener") return powder;
  const additive = additiveText(ingredient.id, region);
  if (additive !== null) return additive;
  const inside = (ingredient.contains ?? []).flatMap((id) => shelf.get(id) ?? []);
  const names = [...inside.map((one) => additiveText(one.id, region) ?? plainName(one)), ...(powder === null ? [] : [powder])];
  return names.length > 0 ? `${plainName(ingredient)} (${names.join(", ")})` : plainName(ingredient);
}

/** Words of flours, sugars and the like that name no ingredient by themselves. */
const isNamedIn = (title: ReadonlySet<string>, ingredient: Ingredient): boolean =>
  wordsOf(plainName(ingredient)).some((word) => word.length > 3 && !genericHeads.has(word) && !isNeutral(word) && !telling.has(word) && title.has(word)); // prettier-ignore

/**
 * The ingredients in falling order of the mass that went in, compound ones opened where it is known what they hold, additives in the region's
 * way, allergens set off. `netG` is what comes out; by it the added water is counted where the region asks for what is left of it.
 */
export function ingredientList(items: readonly Item[], netG: Range, region: Region, shelf: Shelf, besides: ReadonlyMap<string, Beside> = new Map(), title = ""): { listed: Listed[]; waterLeftOut: boolean } {
  const named = new Set(region.percent === "named" ? wordsOf(title) : []);
  const others = massOf(items.filter(({ ingredient }) => ingredient.id !== "water"));
  const added = massOf(items) - others;
  const lost = Math.max(0, massOf(items) - netG.mid);
  const water = region.water === "ingoing" ? added : region.water === "finished" ? Math.max(0, Math.min(added, netG.mid - others)) : Math.max(0, added - lost);
  const share = netG.mid > 0 ? (100 * water) / netG.mid : 0;
  const waterLeftOut = added > 0 && (water <= 0 || share < region.waterMayGoUnderPercent);
  const listed = items.flatMap((item): Listed[] => {
    const { ingredient } = item;
    const isWater = ingredient.id === "water";
    if (isWater && waterLeftOut) return [];
    if (item.massG <= 0) return [];
    const beside = besides.get(ingredient.id);
    const words = toldOf(ingredient, beside, region).map(({ word }) => word);
    const spans = spansOf(nameOn(ingredient, beside, region, shelf), words);
    const percent = isNamedIn(named, ingredient) && netG.mid > 0 ? Math.min(100, Math.round((100 * item.massG) / netG.mid)) : null;
    return [
      {
        ingredientId: ingredient.id,
        massG: isWater ? water : item.massG,
        spans: percent === null ? spans : [...spans, { text: ` ${percent} %`, strong: false }],
        unopened: unopened.has(ingredient.id) && beside?.composition === undefined && !(ingredient.contains && ingredient.contains.length > 0),
      },
    ];
  });
  return { listed: listed.sort((a, b) => b.massG - a.massG || (a.ingredientId < b.ingredientId ? -1 : 1)), waterLeftOut };
} // prettier-ignore

/** Foods that are named and not weighed, as the end of a list. */
export const namedSpans = (name: string, told: readonly Told[]): Span[] => spansOf(name, told.map(({ word }) => word)); // prettier-ignore

/** A list in words, its allergens in capitals. */
export const listText = (listed: readonly Pick<Listed, "spans">[]): string =>
  listed.map(({ spans }) => spans.map(({ text, strong }) => (strong ? text.toUpperCase() : text)).join("")).join(", ");
