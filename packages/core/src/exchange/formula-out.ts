import { minuteSpan } from "../measure/list-words";
import { flourOf, resolve } from "../formula/resolve";
import { expandWeighed } from "../formula/nested";
import type { Kitchen } from "../formula/open";
import { durationOf } from "./duration";
import { gramsOut, type Outgoing, type OutLine } from "./outgoing";
import { type Cell, tableText } from "./table";
import type { Nutrition } from "../label/nutrition-schema";

/** Columns of a formula as a table; what is a mass says so. */
export const formulaColumns = [
  "component", "ingredient", "called", "ingredient id", "mass (g)", "mass, least (g)", "mass, most (g)", "baker's percentage (%)", "household measure", "note", "optional",
] as const; // prettier-ignore

const two = (value: number): number => Math.round(value * 100) / 100;

/** A formula as CSV (RFC 4180): one line an ingredient. */
export function formulaCsv({ parts, formula }: Outgoing, { shelf, book }: Pick<Kitchen, "shelf" | "book">): string {
  const flourG = flourOf(resolve(expandWeighed(formula.lines, book), shelf));
  const row = (component: string, line: OutLine): Cell[] => [
    component,
    line.pantryName,
    line.name,
    line.ingredientId ?? "",
    line.grams === null ? "" : two(line.grams),
    line.range === null ? "" : two(line.range.low),
    line.range === null ? "" : two(line.range.high),
    line.grams === null || flourG <= 0 ? "" : Math.round((1000 * line.grams) / flourG) / 10,
    line.household,
    line.note,
    line.optional ? "yes" : "",
  ];
  return tableText(
    formulaColumns,
    parts.flatMap(({ component, lines }) => lines.map((line) => row(component?.name ?? "", line))),
  );
}

const makesText = ({ pieces, pieceG }: Outgoing): string =>
  `Makes ${pieces} ${pieces === 1 ? "piece" : "pieces"} of ${gramsOut(Math.round(pieceG))}`;

const bakeText = ({ oven, minutes, pan }: Outgoing): string =>
  `Bake at ${oven} in ${pan}${minutes === null ? "" : ` for ${minuteSpan(minutes, " to ")} minutes`}.`;

/** The title as the first thing of a text, without what would make it something else. */
const titleText = (title: string): string => title.replace(/\s+/g, " ").replace(/^[#>*\-\s]+/, "");

/** A formula as Markdown that reads like a recipe; our own reader reads it back to the same grams. */
export function formulaMarkdown(out: Outgoing): string {
  const { parts, steps, formula } = out;
  const list = parts.flatMap(({ component, heading, lines }) => [
    ...(component === null ? [] : ["", `### ${heading}`, ""]),
    ...lines.map((line) => `- ${line.written}`),
  ]);
  const method = steps.map((step, k) => `${k + 1}. ${step.words}.`);
  return `${[
    `# ${titleText(formula.title)}`,
    "",
    `${makesText(out)}.`,
    "",
    "## Ingredients",
    "",
    ...list,
    "",
    "## Method",
    "",
    ...method,
    "",
    bakeText(out),
    ...(formula.notes.trim() === "" ? [] : ["", "## Notes", "", formula.notes.trim()]),
  ].join("\n")}\n`;
}

/** A formula as plain text for a message: no marks, short lines. */
export function formulaText(out: Outgoing): string {
  const { parts, steps, formula } = out;
  return `${[
    titleText(formula.title),
    "",
    `${makesText(out)}.`,
    "",
    ...parts.flatMap(({ component, heading, lines }) => [
      component === null ? "Ingredients:" : `\n${heading}:`,
      ...lines.map((line) => line.written),
    ]),
    "",
    "Method:",
    ...steps.map((step, k) => `${k + 1}. ${step.words}.`),
    bakeText(out),
    ...(formula.notes.trim() === "" ? [] : ["", "Notes:", formula.notes.trim()]),
  ].join("\n")}\n`;
}

/** What a program that knows schema.org reads: the property names are that vocabulary's. */
export type JsonLd = Record<string, unknown>;

const quantity = (grams: number): JsonLd => ({ "@type": "QuantitativeValue", value: two(grams), unitCode: "GRM" });

/** By these our own reader knows its ingredients again. */
export const INGREDIENT_PROPERTY = "urn:uprise:ingredient";
export const KIND_PROPERTY = "urn:uprise:kind";

/** A formula as a schema.org Recipe in JSON-LD; times as ISO 8601 durations, nutrition for one piece where it can be told. */
export function formulaJsonLd(out: Outgoing, nutrition: Nutrition | null): JsonLd {
  const { formula, parts, steps, minutes, pieces, pieceG, workMinutes, pan, oven, kindWord, id, version } = out;
  const cook = minutes?.mid ?? null;
  const supply = ({ pantryName, ingredientId, grams, household, name }: OutLine): JsonLd => ({
    "@type": "HowToSupply",
    name: pantryName,
    ...(name === pantryName ? {} : { alternateName: name }),
    ...(ingredientId === null ? {} : { identifier: { "@type": "PropertyValue", propertyID: INGREDIENT_PROPERTY, value: ingredientId } }),
    ...(grams === null ? {} : { requiredQuantity: quantity(grams) }),
    ...(household === "" ? {} : { description: household }),
  });
  const beside = parts.filter(({ component }) => component !== null);
  return {
    "@context": "https://schema.org",
    "@type": "Recipe",
    name: formula.title,
    ...(id === null ? {} : { identifier: id }),
    ...(version === null ? {} : { version: String(version) }),
    recipeCategory: kindWord,
    additionalProperty: { "@type": "PropertyValue", propertyID: KIND_PROPERTY, value: formula.kind },
    recipeYield: [String(pieces), `${pieces} ${pieces === 1 ? "piece" : "pieces"} of ${gramsOut(Math.round(pieceG))}`],
    recipeIngredient: parts.flatMap(({ lines }) => lines.map(({ written }) => written)),
    supply: parts.flatMap(({ lines }) => lines.map(supply)),
    ...(beside.length === 0
      ? {}
      : {
          hasPart: beside.map(({ heading, component, lines }) => ({
            "@type": "Recipe",
            name: heading,
            recipeCategory: component?.role,
            recipeIngredient: lines.map(({ written }) => written),
          })),
        }),
    recipeInstructions: [
      ...steps.map((step, k) => ({ "@type": "HowToStep", position: k + 1, text: `${step.words}.`, timeRequired: durationOf(step.minutes.mid) })),
      { "@type": "HowToStep", position: steps.length + 1, text: bakeText(out) },
    ],
    cookingMethod: `Baking at ${oven}`,
    tool: { "@type": "HowToTool", name: pan },
    ...(workMinutes > 0 ? { prepTime: durationOf(workMinutes) } : {}),
    ...(cook === null ? {} : { cookTime: durationOf(cook), totalTime: durationOf(cook + workMinutes) }),
    ...(nutrition ? { nutrition: nutritionLd(nutrition) } : {}),
    ...(formula.notes.trim() === "" ? {} : { description: formula.notes.trim() }),
  };
} // prettier-ignore

function nutritionLd({ perPiece, pieceG }: Nutrition): JsonLd {
  const grams = (value: { mid: number }): string => `${Math.round(value.mid * 10) / 10} g`;
  return {
    "@type": "NutritionInformation",
    servingSize: `1 piece (${Math.round(pieceG.mid)} g)`,
    calories: `${Math.round(perPiece.kcal.mid)} kcal`,
    fatContent: grams(perPiece.fat),
    saturatedFatContent: grams(perPiece.saturated),
    carbohydrateContent: grams(perPiece.carbohydrate),
    sugarContent: grams(perPiece.sugars),
    fiberContent: grams(perPiece.fibre),
    proteinContent: grams(perPiece.protein),
    sodiumContent: `${Math.round(1000 * (perPiece.salt.mid / 2.5))} mg`,
  };
}
