import { spanText } from "../measure/amounts";
import { z } from "zod";
import { profileOf } from "../balance/bands";
import type { Analysis } from "../balance/readings";
import { kindName } from "../formula/kinds";
import type { Kind } from "../formula/kinds";
import type { Opened } from "../formula/open";
import { gramsText } from "../measure/amounts";
import { type Range, rangeSchema } from "../measure/range-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import type { Packet } from "../pantry/packet-schema";
import { cautionSchema, cautionsOf } from "./cautions";
import { costOf, costSchema } from "./cost";
import { glutenCaution, glutenChecks, glutenCheckSchema, glutenOfWords } from "./gluten";
import { allergenWords, ingredientList, listText, namedSpans, spanSchema, toldOf } from "./ingredient-list";
import { keepingOf, keepingSchema } from "./keeping";
import { madeOf } from "./label-parts";
import { nutritionOf } from "./nutrition";
import { nutritionSchema } from "./nutrition-schema";
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

const grains: ReadonlySet<string> = new Set(["wheat", "rye", "barley"]);

/** What is baked weighs less than it says by so much at most. */
function netText(netG: Range, pieces: number): string {
  const each = netG.mid / Math.max(1, pieces);
  const about = `about ${gramsText(each)}, between ${gramsText(netG.low / Math.max(1, pieces))} and ${gramsText(netG.high / Math.max(1, pieces))}`;
  return pieces > 1 ? `${pieces} pieces, each ${about}` : about;
}

function storageText({ counterDays, fridgeDays, freezerMonths, ends }: Label["keeping"]): string {
  const fridge = `in the fridge ${spanText(fridgeDays, "day")}`;
  const frozen = freezerMonths ? `; frozen ${spanText(freezerMonths, "month")}` : "; not for freezing as it is";
  if (counterDays && (ends === "crispness" || ends === "rancidity"))
    return `In a tight tin at room temperature ${spanText(counterDays, "day")}${frozen}.`;
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
  const { items, soldItems, netG, parts, besides, unweighed, asked } = madeOf(input, analysis, shelf);
  const { pieces } = analysis.fill;
  const { listed, waterLeftOut } = ingredientList(items, netG, region, shelf, besides, input.title);
  const ids = new Set(items.map(({ ingredient }) => ingredient.id));
  const mine = packets.filter((packet) => ids.has(packet.ingredientId));
  const named = unweighed.filter(({ why }) => why === "open").map((one) => ({ ...one, told: allergenWords(one.holder, region) }));
  const perhaps = unweighed.filter(({ why }) => why !== "open").map((one) => ({ ...one, told: allergenWords(one.holder, region) }));
  const all = items.map(({ ingredient }) => ({ name: ingredient.name, told: toldOf(ingredient, besides.get(ingredient.id), region) }));
  const told = [...new Set([...all, ...named].flatMap((one) => one.told.flatMap(({ statement }) => statement.split(", "))))];
  const keeping = keepingOf(kind, parts, (analysis.bake ?? profileOf(kind)).targetCoreC);
  const checks = [
    ...glutenChecks(items.map(({ ingredient }) => ingredient), mine, region),
    ...unweighed.flatMap(({ name, words }) => glutenOfWords(name, words.length < 60 ? words : name)),
    ...[...besides.values()].flatMap(({ composition }) => (composition === undefined ? [] : glutenOfWords(composition, composition))),
    ...asked.flatMap((question) => glutenOfWords(question, question).map((check) => ({ ...check, name: "A question that is open", ask: question, state: "open" as const }))),
    ...[...besides].flatMap(([id, { named: more }]) => (more.some(({ allergen }) => grains.has(allergen)) ? [{ ingredientId: id, name: shelf.get(id)?.name ?? id, ask: "Its own words name a grain with gluten: no claim is possible with it.", state: "against" as const, by: shelf.get(id)?.name ?? id }] : [])),
  ];
  const notAsked = all.flatMap(({ name, told: words }) => words.filter(({ asked: law }) => !law).map(({ word }) => `${name}: ${word}`));
  const strange = mine.flatMap(({ name, allergens = [], ingredientId }) => allergens.filter((one) => !shelf.get(ingredientId)?.allergens.includes(one)).map((one) => `“${name}” prints ${one}, which ${shelf.get(ingredientId)?.name ?? ingredientId} does not usually hold; it belongs into the list or the statement.`));
  const wordsOfTold = (words: readonly { word: string }[]): string => (words.length > 0 ? ` (${words.map(({ word }) => word.toUpperCase()).join(", ")})` : "");
  const ends = named.map((one) => ({ spans: namedSpans(one.name, one.told) }));
  return {
    region: regionId,
    regionName: region.name,
    what: kindName[kind],
    ingredients: [...listed, ...ends].map(({ spans }) => spans),
    ingredientsText: listText([...listed, ...ends]),
    contains: region.contains === null || told.length === 0 ? null : `${region.contains}${told.join(", ")}.`,
    mayContain: mine.flatMap(({ ingredientId, name, statement }) => (statement && statement.trim() !== "" ? [{ ingredientId, packet: name, statement: statement.trim() }] : [])),
    netG,
    netText: netText(netG, pieces),
    pieces,
    storage: storageText(keeping),
    nutrition: nutritionOf(soldItems, netG, pieces),
    keeping,
    cautions: cautionsOf(items, parts, analysis, keeping),
    gluten: { claim: checks.some(({ state }) => state === "against") ? "against" : checks.some(({ state }) => state === "open") ? "open" : "words-are-there", checks, caution: glutenCaution(region) },
    cost: costOf(items.map(({ ingredient, massG }) => ({ ingredientId: ingredient.id, grams: massG })), packets, pieces, netG.mid),
    open: [
      ...named.map(({ name, words, told: its }) => `“${name}”${wordsOfTold(its)} is not weighed${words.toLowerCase() === name ? "" : ` (“${words}”)`}: it stands at the end of the list until it is, or is left out.`),
      ...perhaps.map(({ name, words, why, told: its }) => `“${name}”${wordsOfTold(its)} ${why === "instead" ? `may be taken in place of something (“${words}”)` : "is left out here"}: where it goes in, it belongs into the list${its.length > 0 ? " and the statement" : ""}.`),
      ...asked.map((question) => `Still open: ${question}`),
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
