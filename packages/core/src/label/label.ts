import { z } from "zod";
import type { Analysis } from "../balance/readings";
import { type AsideOf, sortLines } from "../formula/components";
import { cookedItems, weighedAsides } from "../formula/component-mass";
import { type Kind, kindName } from "../formula/kinds";
import type { Opened } from "../formula/open";
import { type Item, massOf, resolve } from "../formula/resolve";
import { gramsText } from "../measure/amounts";
import { exactly, type Range, rangeSchema } from "../measure/range";
import { builtInShelf, type Shelf } from "../pantry/catalogue";
import type { Packet } from "../pantry/packet";
import { cautionSchema, cautionsOf } from "./cautions";
import { costOf, costSchema } from "./cost";
import { glutenCaution, glutenChecks, glutenCheckSchema } from "./gluten";
import { allergenWords, ingredientList, listText, spanSchema } from "./ingredient-list";
import { keepingOf, keepingSchema } from "./keeping";
import { nutritionOf, nutritionSchema } from "./nutrition";
import { type RegionId, regionIds, regions } from "./regions";

export const labelSchema = z.object({
  region: z.enum(regionIds),
  regionName: z.string(),
  /** What it is, in words. */
  what: z.string(),
  ingredients: z.array(z.array(spanSchema)),
  /** The same as one line, allergens in capitals. */
  ingredientsText: z.string(),
  contains: z.string().nullable(),
  /** As the packets on the shelf print it. */
  mayContain: z.array(z.object({ ingredientId: z.string(), packet: z.string(), statement: z.string() })),
  netG: rangeSchema,
  netText: z.string(),
  pieces: z.number(),
  storage: z.string(),
  nutrition: nutritionSchema,
  keeping: keepingSchema,
  cautions: z.array(cautionSchema),
  gluten: z.object({
    claim: z.enum(["open", "against", "words-are-there"]),
    checks: z.array(glutenCheckSchema),
    caution: z.string(),
  }),
  cost: costSchema.nullable(),
  /** What must be settled before it is printed, in sentences. */
  open: z.array(z.string()),
  source: z.string(),
  asOf: z.string(),
});
export type Label = z.infer<typeof labelSchema>;

interface Made {
  items: Item[];
  netG: Range;
  /** Each part with the water it has lost. */
  parts: { items: readonly Item[]; place: "batter" | (AsideOf["component"]["place"] & string); lostG: Range }[];
}

/** A span of days or months in words, a day at the least: “1 to 4 days”. */
export const spanText = ({ low, high }: Range, unit: string): string => {
  const [from, to] = [Math.max(1, Math.floor(low)), Math.max(1, Math.floor(high))];
  return from === to ? `${from} ${unit}${from === 1 ? "" : "s"}` : `${from} to ${to} ${unit}s`;
};

/** Everything that is in one bake and goes over the counter with it; what stands apart is not. */
function madeOf(input: Opened, analysis: Analysis, shelf: Shelf): Made {
  const { batter, asides } = sortLines(input.lines, input.components, shelf);
  const sold = weighedAsides(asides, shelf).filter(({ place }) => place !== "apart");
  const inOven = sold.filter(({ place }) => place !== "after");
  const crumb = resolve(batter, shelf);
  const ovenG = massOf(crumb) + inOven.reduce((g, { mass }) => g + mass.massG, 0);
  const afterG = sold.filter(({ place }) => place === "after").reduce((g, { mass }) => g + mass.massG, 0);
  const { lossPercent } = analysis.bake;
  const net = (percent: number): number => ovenG * (1 - percent / 100) + afterG;
  const share = (mass: number): Range => ({ low: (mass * lossPercent.low) / 100, mid: (mass * lossPercent.mid) / 100, high: (mass * lossPercent.high) / 100 });
  const all = resolve([...batter, ...asides.filter(({ component }) => sold.some((one) => one.component.id === component.id)).flatMap(({ lines }) => lines)], shelf);
  return {
    items: all,
    netG: { low: net(lossPercent.high), mid: net(lossPercent.mid), high: net(lossPercent.low) },
    parts: [
      { items: crumb, place: "batter", lostG: share(massOf(crumb)) },
      ...sold.map((one) => ({ items: cookedItems(one), place: one.place as "top", lostG: one.place === "top" || one.place === "base" ? share(one.mass.massG) : exactly(0) })),
    ],
  };
} // prettier-ignore

/** What is baked weighs less than it says by so much at most. */
function netText(netG: Range, pieces: number): string {
  const each = netG.mid / Math.max(1, pieces);
  const about = `about ${gramsText(each)}, between ${gramsText(netG.low / Math.max(1, pieces))} and ${gramsText(netG.high / Math.max(1, pieces))}`;
  return pieces > 1 ? `${pieces} pieces, each ${about}` : about;
}

function storageText({ counterDays, fridgeDays, freezerMonths }: Label["keeping"]): string {
  const fridge = `in the fridge ${spanText(fridgeDays, "day")}`;
  const frozen = freezerMonths ? `; frozen ${spanText(freezerMonths, "month")}` : "; not for freezing as it is";
  return counterDays
    ? `Wrapped at room temperature ${counterDays.high < 1 ? "the day it is baked" : spanText(counterDays, "day")}; ${fridge}${frozen}.`
    : `Keep at 5 °C or colder: ${fridge}${frozen}.`;
}

/**
 * The label of a formula for a region, by what went in, what the bake (`analysis`, of the same input) takes away and what this kitchen's packets
 * say. It lists and asks; it never declares a bake safe. Throws as `resolve`.
 */
export function labelOf(
  input: Opened,
  analysis: Analysis,
  kind: Kind,
  regionId: RegionId,
  packets: readonly Packet[],
  shelf: Shelf = builtInShelf,
): Label {
  const region = regions[regionId];
  const { items, netG, parts } = madeOf(input, analysis, shelf);
  const { pieces } = analysis.fill;
  const { listed, waterLeftOut } = ingredientList(items, netG, region, shelf);
  const ids = new Set(items.map(({ ingredient }) => ingredient.id));
  const mine = packets.filter((packet) => ids.has(packet.ingredientId));
  const told = [...new Set(items.flatMap(({ ingredient }) => allergenWords(ingredient, region).map(({ word }) => word)))];
  const keeping = keepingOf(kind, parts);
  const checks = glutenChecks(items.map(({ ingredient }) => ingredient), mine, region);
  const notAsked = items.flatMap(({ ingredient }) => allergenWords(ingredient, region).filter(({ asked }) => !asked).map(({ word }) => `${ingredient.name}: ${word}`));
  const strange = mine.flatMap(({ name, allergens = [], ingredientId }) => allergens.filter((one) => !shelf.get(ingredientId)?.allergens.includes(one)).map((one) => `“${name}” prints ${one}, which ${shelf.get(ingredientId)?.name ?? ingredientId} does not usually hold; it belongs into the list or the statement.`));
  return {
    region: regionId,
    regionName: region.name,
    what: kindName[kind],
    ingredients: listed.map(({ spans }) => spans),
    ingredientsText: listText(listed),
    contains: region.contains === null || told.length === 0 ? null : `${region.contains}${told.join(", ")}.`,
    mayContain: mine.flatMap(({ ingredientId, name, statement }) => (statement && statement.trim() !== "" ? [{ ingredientId, packet: name, statement: statement.trim() }] : [])),
    netG,
    netText: netText(netG, pieces),
    pieces,
    storage: storageText(keeping),
    nutrition: nutritionOf(items, netG, pieces),
    keeping,
    cautions: cautionsOf(items, analysis, keeping),
    gluten: { claim: checks.some(({ state }) => state === "against") ? "against" : checks.some(({ state }) => state === "open") ? "open" : "words-are-there", checks, caution: glutenCaution(region) },
    cost: costOf(items.map(({ ingredient, massG }) => ({ ingredientId: ingredient.id, grams: massG })), packets, pieces, netG.mid),
    open: [
      ...analysis.open.map(({ name }) => `“${name}” is not weighed, so it is not in the list.`),
      ...listed.filter((one) => one.unopened).map(({ ingredientId }) => `${shelf.get(ingredientId)?.name ?? ingredientId} is made of several things: copy its list from the packet in brackets behind it.`),
      ...strange,
      ...(notAsked.length > 0 ? [`This law does not ask for it, and it is told all the same: ${notAsked.join("; ")}.`] : []),
      ...(waterLeftOut ? [`Water is left out: less than ${Math.max(region.waterMayGoUnderPercent, 0)} % of it is left in what is sold.`] : []),
      "Nutrition is reckoned from tables of composition, not measured; where the law wants a measured value, have it measured.",
    ],
    source: region.source,
    asOf: region.asOf,
  };
} // prettier-ignore
