import { z } from "zod";
import type { Packet } from "../pantry/packet-schema";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import { allergensInWords } from "../pantry/allergen-words";
import type { Region } from "./regions";

export const glutenCheckSchema = z.object({
  ingredientId: z.string(),
  name: z.string(),
  /** What its packet must say for a claim to be thought of. */
  ask: z.string(),
  state: z.enum(["confirmed", "open", "against"]),
  /** Which packet says so, or what it says against it. */
  by: z.string().optional(),
});
export type GlutenCheck = z.infer<typeof glutenCheckSchema>;

/** What must be read on the packet of an ingredient before a gluten-free claim can be thought of; null where there is nothing to read. */
function askOf(ingredient: Ingredient, region: Region): string | null {
  const { gluten, family, name } = ingredient;
  if (gluten === "contains") return `${name} contains gluten: no claim is possible with it.`;
  if (gluten === "oats") {
    if (region.gluten.oats === "never") return "Oats rule a gluten-free claim out here, certified or not.";
    return region.gluten.oats === "named"
      ? "“Gluten-free oats”, with a test by lot, and they are named so in the list."
      : "“Gluten-free” oats: grown and milled apart from wheat, rye and barley.";
  }
  if (family === "blend") return "A gluten-free mark or claim, and its list without wheat, rye, barley and malt.";
  if (family === "leavener" && ingredient.leavening?.powder) return "Its starch: maize, rice or potato, none of wheat.";
  if (family === "flavour") return "Its carrier: no malt, no grain spirit that was not distilled.";
  if (isFlour(ingredient)) return "Milled and packed apart from wheat, rye and barley, or a gluten-free mark.";
  if (gluten === "check") return "Its list without wheat, rye, barley and malt, and no trace statement of them.";
  return null;
}

const grainTrace = /\b(?:wheat|gluten|rye|barley|malt|cereals?|oats?)\b/i;
/** What a packet says that it is free of is no trace: "free from gluten and wheat", "gluten-free oats". */
const saidFree =
  /\bgluten[- ]free(?: (?:\w+ )?oats?)?|\b(?:free (?:from|of)|no|without|contains no) (?:wheat|gluten|rye|barley|malt|cereals?|oats?)(?:(?:,| and| or|, and|, or) (?:wheat|gluten|rye|barley|malt|cereals?|oats?))*/gi;
/** "We cannot guarantee that it is free from gluten" says the contrary. */
const notFree =
  /\b(?:not|cannot|can't|isn't|never|no guarantee)\b[^.;,]{0,60}?(?:\bgluten[- ]free\b|\bfree (?:from|of) (?:gluten|wheat|rye|barley|malt|cereals?|oats?)\b)/i;
const namesATrace = (statement: string): boolean => notFree.test(statement) || grainTrace.test(statement.replace(saidFree, " "));
const free = /\b(?:gluten[- ]free|free (?:from|of) gluten)\b/i;

/** Every ingredient whose packet must say something for a claim, with what the packets on this shelf do say. */
export function glutenChecks(ingredients: readonly Ingredient[], packets: readonly Packet[], region: Region): GlutenCheck[] {
  return ingredients.flatMap((ingredient): GlutenCheck[] => {
    const ask = askOf(ingredient, region);
    if (ask === null) return [];
    const named = { ingredientId: ingredient.id, name: ingredient.name, ask };
    if (ingredient.gluten === "contains") return [{ ...named, state: "against", by: ingredient.name }];
    if (ingredient.gluten === "oats" && region.gluten.oats === "never") return [{ ...named, state: "against", by: ingredient.name }];
    const mine = packets.filter((packet) => packet.ingredientId === ingredient.id);
    const against = mine.find(({ gluten, statement = "", allergens = [] }) => gluten === "may-contain" || allergens.includes("wheat") || allergens.includes("barley") || namesATrace(statement));
    if (against) return [{ ...named, state: "against", by: `${against.name}: ${against.statement ?? "it says that it may contain gluten"}` }];
    // Every packet must say it, since any of them may be opened.
    const silent = mine.find(({ gluten, statement = "" }) => gluten !== "certified" && gluten !== "claimed" && !free.test(statement));
    if (mine.length === 0 || silent) return [{ ...named, state: "open", ...(silent ? { by: `${silent.name} says nothing of it` } : {}) }];
    return [{ ...named, state: "confirmed", by: mine.map(({ name }) => name).join(", ") }];
  });
} // prettier-ignore

/** Grains that a name or a composition says, of which the pantry knows nothing: no claim stands beside them. */
export const glutenOfWords = (name: string, text: string): GlutenCheck[] =>
  allergensInWords(text).gluten === "contains"
    ? [{ ingredientId: "", name, ask: `“${name}” names wheat, rye, barley or their malt: no claim is possible with it.`, state: "against", by: name }]
    : []; // prettier-ignore

/** What is said with every list of checks: the limit, and who decides. */
export const glutenCaution = ({ gluten }: Region): string =>
  `${gluten.words} The limit is ${gluten.limit}; only a test of what you sell and your local authority decide, not this list. (${gluten.source})`;
