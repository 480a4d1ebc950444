import { bandReadings } from "../balance/bands";
import { mixtureAsIngredient } from "../formula/nested";
import type { Formula } from "../formula/formula";
import { sortLines } from "../formula/components";
import { type Item, massOf, resolve } from "../formula/resolve";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import { isInclusion } from "../pantry/pieces";
import type { Line } from "./compose";
import { endsOf, knobOf } from "./knobs";
import { isGround } from "./flours";
import type { Wish } from "./wish-schema";

const YEAST = /^yeast|sourdough/;

/** Whether an ingredient may stand in a design: no gluten, nothing that ferments. */
const stays = ({ id, gluten, family }: Ingredient): boolean => gluten !== "contains" && family !== "wheat" && !YEAST.test(id);

/**
 * A recipe, of wheat or raised by yeast too, as a wish: its kind, pan and oven, as rich and as sweet as it is, its own things on hand beside what is
 * there, and its fruit, nuts and chocolate to go in. What of it cannot stay is told by name.
 */
export function wishFrom(
  formula: Pick<Formula, "kind" | "lines" | "components" | "vessel" | "oven">,
  have: readonly string[],
  shelf: Shelf = builtInShelf,
): { wish: Wish; gone: string[] } {
  const items: Item[] = resolve(sortLines(formula.lines, formula.components, shelf).batter, shelf);
  const kept = items.filter(({ ingredient }) => stays(ingredient));
  const { fatPercent, sugarPercent } = bandReadings(items, 0);
  const ends = endsOf(formula.kind, shelf);
  const pieces = kept.filter(({ ingredient }) => isInclusion(ingredient) || ingredient.family === "puree" || ingredient.family === "cocoa"); // prettier-ignore
  const flours = kept.filter(({ ingredient }) => isGround(ingredient)).map(({ ingredient }) => ingredient.id);
  const eggless = !items.some(({ ingredient }) => ingredient.family === "egg");
  const savoury = sugarPercent < 0.3 * ends.sugar.usual && ends.sugar.low < 1;
  return {
    wish: {
      kind: formula.kind,
      vessel: formula.vessel,
      oven: formula.oven,
      have: [...new Set([...have, ...kept.map(({ ingredient }) => ingredient.id)])],
      ...(flours.length > 0 ? { prefer: flours } : {}),
      ...(pieces.length > 0 ? { useUp: pieces.slice(0, 12).map(({ ingredient, massG }) => ({ ingredientId: ingredient.id, grams: Math.round(massG) })) } : {}), // prettier-ignore
      rich: Math.round(100 * knobOf(fatPercent, ends.fat)) / 100,
      sweet: Math.round(100 * knobOf(sugarPercent, ends.sugar)) / 100,
      ...(eggless ? { variant: "eggless" as const } : savoury ? { variant: "savoury" as const } : {}),
    },
    gone: items.filter(({ ingredient }) => !stays(ingredient)).map(({ ingredient }) => ingredient.name),
  };
}

/** A dry mix, or the flours of a design, as one thing on the shelf; the powder in it lifts. */
export function blendFrom(id: string, name: string, lines: readonly Line[], shelf: Shelf = builtInShelf): Ingredient {
  const parts = resolve(lines, shelf);
  const whole = massOf(parts);
  const lifts = parts.find(({ ingredient }) => ingredient.leavening?.powder);
  const powder = lifts?.ingredient.leavening?.powder;
  return {
    ...mixtureAsIngredient(id, name, parts),
    aliases: [name.toLowerCase()],
    ...(lifts && powder ? { leavening: { powder, share: lifts.massG / whole } } : {}),
  };
}

/** The lines of a design that are flour or starch. */
export const floursOf = (lines: readonly Line[], shelf: Shelf = builtInShelf): Line[] =>
  lines.filter(({ ingredientId }) => {
    const one = shelf.get(ingredientId);
    return one !== undefined && isFlour(one);
  });
