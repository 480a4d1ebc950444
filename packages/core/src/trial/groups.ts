import type { InputLine } from "../formula/components";
import { type Opened } from "../formula/open";
import { gramsOf } from "../formula/components";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";

/** What a change of "the fat" or "the liquid" takes hold of. */
export const groups = {
  soda: ({ id }: Ingredient): boolean => id === "soda" || id === "potassium-bicarbonate",
  powder: ({ leavening, family }: Ingredient): boolean => family === "leavener" && leavening?.powder !== undefined,
  leavening: ({ family }: Ingredient): boolean => family === "leavener",
  acid: ({ family, id }: Ingredient): boolean =>
    family === "acid" || family === "vinegar" || family === "cultured" || /lemon-juice|buttermilk|kefir|yoghurt/.test(id),
  water: ({ family }: Ingredient): boolean => ["water", "dairy", "cultured", "plant-milk", "juice", "fizzy"].includes(family),
  binder: ({ family }: Ingredient): boolean => family === "binder" || family === "egg-substitute",
  fat: ({ family }: Ingredient): boolean => family === "fat",
  sugar: ({ family }: Ingredient): boolean => family === "sugar" || family === "syrup",
  egg: ({ family }: Ingredient): boolean => family === "egg",
  flour: (ingredient: Ingredient): boolean => isFlour(ingredient) && ingredient.family !== "nut-flour",
  salt: ({ family }: Ingredient): boolean => family === "salt",
} satisfies Record<string, (ingredient: Ingredient) => boolean>;
export type GroupName = keyof typeof groups;

/** Whether a line stands in the batter and weighs something. */
const counts = (line: InputLine): boolean => line.component === undefined && gramsOf(line) > 0;

export function gramsIn(input: Opened, group: GroupName, shelf: Shelf): number {
  return input.lines.reduce((sum, line) => {
    const ingredient = shelf.get(line.ingredientId ?? "");
    return ingredient && counts(line) && groups[group](ingredient) ? sum + gramsOf(line) : sum;
  }, 0);
}

/** The input with the lines of a group times a factor; those at nothing are gone. Ranges are scaled with their middle. */
export function scaledGroup(input: Opened, group: GroupName, factor: number, shelf: Shelf): Opened {
  const lines = input.lines.flatMap((line): InputLine[] => {
    const ingredient = shelf.get(line.ingredientId ?? "");
    if (!ingredient || !counts(line) || !groups[group](ingredient)) return [line];
    if (factor <= 0) return [];
    return [{ ...line, grams: gramsOf(line) * factor }];
  });
  return { ...input, lines };
}

/** The input with so many grams more of an ingredient in its batter. */
export function withMore(input: Opened, ingredientId: string, grams: number): Opened {
  const at = input.lines.findIndex((line) => line.ingredientId === ingredientId && counts(line));
  if (at < 0) return { ...input, lines: [...input.lines, { ingredientId, grams }] };
  return { ...input, lines: input.lines.map((line, k) => (k === at ? { ...line, grams: gramsOf(line) + grams } : line)) };
}
