import { profileOf } from "../balance/bands";
import type { Analysis } from "../balance/readings";
import { sortLines, type AsideOf, type InputLine } from "../formula/components";
import { cookedItems, weighedAsides } from "../formula/component-mass";
import type { NamedBeside } from "../formula/named-schema";
import type { Opened } from "../formula/open";
import { type Item, massOf, resolve } from "../formula/resolve";
import { exactly } from "../measure/range";
import type { Range } from "../measure/range-schema";
import { allergensInWords, beyond } from "../pantry/allergen-words";
import type { Shelf } from "../pantry/shelf";
import type { Beside, Holder } from "./ingredient-list";
import type { KeptPart } from "./perishable";

/** Everything that is in one bake, on it, under it or beside it on the plate, with what is sold of it. */
export interface Made {
  /** All of it, the tin's grease and what is served with it too: this is what is eaten. */
  items: Item[];
  /** What is weighed when it is sold. */
  soldItems: Item[];
  netG: Range;
  /** Each part with the water it has lost. */
  parts: KeptPart[];
  /** What is known of a thing beside the pantry's knowledge, by its id. */
  besides: Map<string, Beside>;
  /** Named and not weighed: open lines, and foods beside the list. */
  unweighed: { name: string; holder: Holder; why: "open" | "instead" | "left-out"; words: string }[];
  /** What the reader asked and nobody has answered. */
  asked: string[];
}

type Told = InputLine & { note?: string | undefined; source?: string | undefined; unsure?: string | undefined };

/** From its first bracket to the one that closes it; null where there is none, or nothing behind a comma in it. */
function inBrackets(text: string): string | null {
  const from = text.indexOf("(");
  if (from < 0) return null;
  let depth = 0;
  for (let k = from; k < text.length; k++) {
    if (text[k] === "(") depth++;
    if (text[k] === ")" && --depth === 0) {
      const inside = text.slice(from + 1, k).trim();
      return inside.includes(",") ? inside : null;
    }
  }
  return null;
}

const holderOf = (name: string): Holder[] => {
  const { allergens, gluten } = allergensInWords(name);
  const held = allergens.map(({ allergen, id }): Holder => ({ id, allergens: [allergen], gluten: gluten === "contains" ? "contains" : "free" }));
  return gluten === "oats" ? [...held, { id: "rolled-oats", allergens: [], gluten: "oats" }] : held;
}; // prettier-ignore

/** Several holders as one: what a name tells of allergens. */
function holderNamed(name: string): Holder {
  const all = holderOf(name);
  const nut = all.find(({ allergens }) => allergens.includes("nuts"));
  return {
    id: nut?.id ?? all[0]?.id ?? "",
    allergens: [...new Set(all.flatMap(({ allergens }) => allergens))],
    gluten: all.some(({ gluten }) => gluten === "contains") ? "contains" : all.some(({ gluten }) => gluten === "oats") ? "oats" : "free",
  }; // prettier-ignore
}

/** What lines tell beside their ingredient: compositions in brackets of compound things, words that name more than the thing holds. */
function besidesOf(lines: readonly Told[], shelf: Shelf): Map<string, Beside> {
  const besides = new Map<string, Beside>();
  for (const line of lines) {
    const ingredient = shelf.get(line.ingredientId ?? "");
    if (!ingredient || line.off) continue;
    const inside = inBrackets(line.source ?? "") ?? inBrackets(line.name ?? "");
    const compound = inside !== null && isComposition(inside, ingredient.contains !== undefined, ingredient.family);
    const named = beyond(allergensInWords(line.name ?? ""), ingredient);
    if (!compound && named.length === 0) continue;
    const before = besides.get(ingredient.id);
    besides.set(ingredient.id, {
      ...(compound ? { composition: inside } : before?.composition === undefined ? {} : { composition: before.composition }),
      named: [...(before?.named ?? []), ...named],
    });
  }
  return besides;
}

/** Families of things that are bought ready and are made of several. */
const compounds = new Set(["blend", "chocolate", "flavour", "meat", "cheese", "plant-milk", "egg-substitute", "leavener", "syrup", "fat", "sugar", "cultured", "fizzy", "nut", "spice", "dried-fruit", "additive", "seed", "water"]); // prettier-ignore
/** An amount in brackets is another measure; “chopped, toasted” is no composition. */
const isComposition = (inside: string, compound: boolean, family: string): boolean =>
  (compound || compounds.has(family)) &&
  !/^[\d¼½¾.,/ ]+\s*(?:g|kg|oz|ml|l|cups?|tbsp|tsp|lb)\b/i.test(inside) &&
  !/\b(?:chopped|sliced|melted|toasted|cooled|softened|sifted|packed|optional|beaten|room temperature|plus|about|see|drained|rinsed|grated|or)\b/i.test(inside); // prettier-ignore

/** Everything that is made of an input and eaten. Throws as `resolve`. */
export function madeOf(input: Opened, analysis: Analysis, shelf: Shelf): Made {
  const { batter, asides, open } = sortLines(input.lines, input.components, shelf);
  const weighed = weighedAsides(asides, shelf);
  const sold = weighed.filter(({ place }) => place !== "apart");
  const inOven = sold.filter(({ place }) => place !== "after");
  const crumb = resolve(batter, shelf);
  const ovenG = massOf(crumb) + inOven.reduce((g, { mass }) => g + mass.massG, 0);
  const afterG = sold.filter(({ place }) => place === "after").reduce((g, { mass }) => g + mass.massG, 0);
  // What cannot be baked in the computer loses what its kind usually does.
  const { lossPercent } = analysis.bake ?? profileOf(analysis.given.kind);
  const net = (percent: number): number => ovenG * (1 - percent / 100) + afterG;
  const share = (mass: number): Range => ({ low: (mass * lossPercent.low) / 100, mid: (mass * lossPercent.mid) / 100, high: (mass * lossPercent.high) / 100 }); // prettier-ignore
  const linesIn = (which: readonly { component: AsideOf["component"] }[]) =>
    asides.filter(({ component }) => which.some((one) => one.component.id === component.id)).flatMap(({ lines }) => lines);
  const items = resolve([...batter, ...asides.flatMap(({ lines }) => lines)], shelf);
  const lines = input.lines as readonly Told[];
  const besides = besidesOf(lines, shelf);
  const printed = [...besides.values()].map(({ composition = "" }) => composition.toLowerCase());
  const beside = (input.named ?? []).filter(({ name, words }) => !printed.some((text) => text !== "" && text.includes(name) && words.toLowerCase().includes(text)));
  return {
    items,
    soldItems: resolve([...batter, ...linesIn(sold)], shelf),
    netG: { low: net(lossPercent.high), mid: net(lossPercent.mid), high: net(lossPercent.low) },
    parts: [
      { items: crumb, place: "batter", name: "", lostG: share(massOf(crumb)) },
      ...weighed.map((one): KeptPart => ({ items: cookedItems(one), place: one.place as "top", name: one.component.name, role: one.component.role, lostG: one.place === "top" || one.place === "base" ? share(one.mass.massG) : exactly(0) })),
    ],
    besides,
    unweighed: [...open.map((one) => openOf(one.name, lines, shelf)), ...beside.flatMap((one) => namedOf(one, items, shelf)), ...lines.flatMap((line) => leftOut(line, items, shelf))],
    asked: lines.flatMap(({ unsure, off }) => (unsure && !off ? [unsure] : [])),
  };
} // prettier-ignore

/** A line that is not weighed: its ingredient where it has one, else what its words name. */
function openOf(name: string, lines: readonly Told[], shelf: Shelf): Made["unweighed"][number] {
  const line = lines.find((one) => one.grams === undefined && (one.name === name || shelf.get(one.ingredientId ?? "")?.name === name));
  const ingredient = shelf.get(line?.ingredientId ?? "");
  const words = holderNamed(`${name} ${line?.source ?? ""}`);
  const holder = ingredient ? { id: ingredient.id, allergens: [...new Set([...ingredient.allergens, ...words.allergens])], gluten: ingredient.gluten } : words;
  return { name: name.toLowerCase(), holder, why: "open", words: line?.source ?? name };
} // prettier-ignore

/** What may go in and is left out as it stands. */
function leftOut({ off, ingredientId = "", name, source = "" }: Told, items: readonly Item[], shelf: Shelf): Made["unweighed"] {
  const ingredient = shelf.get(ingredientId);
  if (!off || items.some((item) => item.ingredient.id === ingredientId)) return [];
  const called = (name ?? ingredient?.name ?? source).toLowerCase();
  return [{ name: called, holder: ingredient ?? holderNamed(called), why: "left-out", words: source === "" ? called : source }];
}

/** A food that the recipe names beside its list, where nothing in the list is it. */
function namedOf({ name, ingredientId, instead, words }: NamedBeside, items: readonly Item[], shelf: Shelf): Made["unweighed"] {
  if (items.some(({ ingredient }) => ingredient.id === ingredientId)) return [];
  const ingredient = shelf.get(ingredientId ?? "");
  const said = holderNamed(name);
  const holder = ingredient ? { id: ingredient.id, allergens: [...new Set([...ingredient.allergens, ...said.allergens])], gluten: ingredient.gluten } : said; // prettier-ignore
  return [{ name, holder, why: instead ? "instead" : "open", words }];
}
