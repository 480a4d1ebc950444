import { CoreError } from "../errors";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import type { PowderId } from "../pantry/ingredient-words";
import type { Ingredient } from "../pantry/ingredient-schema";
import { mixtureAsIngredient } from "./nested";

/** What stands on a bought blend: its ingredients in the order of the label, and what the maker says of gum, powder and salt. */
export interface BlendLabel {
  id: string;
  name: string;
  order: readonly string[];
  /** Percent of the blend, where the label says them. */
  gumPercent?: number | undefined;
  powderPercent?: number | undefined;
  powder?: PowderId | undefined;
}

/**
 * Expected shares of n things of which only the descending order is known: the mean of all divisions of a whole in that order,
 * share_i = (1/n) Σ_{k=i..n} 1/k. They add up to 1.
 */
export function sharesByOrder(count: number): number[] {
  return Array.from({ length: count }, (_, i) => {
    let share = 0;
    for (let k = i + 1; k <= count; k++) share += 1 / k;
    return share / count;
  });
}

/** Binders that a label's gum percentage stands for. */
const gumFamilies = new Set<Ingredient["family"]>(["binder"]);

/**
 * A bought blend as an ingredient of the kitchen. Flours and starches get their expected shares by order; gum and powder the
 * percentage of the label, or 0.5 % and none where it is silent. Throws `unknown-ingredient`, `bad-amount`.
 */
export function blendFromLabel(label: BlendLabel, shelf: Shelf): Ingredient {
  const all = label.order.map((id, i) => ingredientOf(shelf, id, `order.${i}`));
  const gums = all.filter((i) => gumFamilies.has(i.family));
  const bulk = all.filter((i) => !gumFamilies.has(i.family) && !i.leavening);
  if (bulk.length === 0) throw new CoreError("bad-amount", "A blend needs at least one flour or starch on its label.", "order");
  const gum = gums.length === 0 ? 0 : (label.gumPercent ?? 0.5);
  const powder = label.powderPercent ?? 0;
  if (gum < 0 || powder < 0 || gum + powder > 30)
    throw new CoreError(
      "bad-amount",
      `Gum ${gum} % and powder ${powder} % cannot be; together up to 30 % would be right.`,
      "gumPercent",
    );
  const shares = sharesByOrder(bulk.length);
  const parts = [
    ...bulk.map((ingredient, i) => ({ ingredient, massG: (100 - gum - powder) * (shares[i] ?? 0) })),
    ...gums.map((ingredient) => ({ ingredient, massG: gum / gums.length })),
  ];
  const blend = mixtureAsIngredient(label.id, label.name, parts);
  if (powder <= 0) return { ...blend, source: "maker-label" };
  const per100g = { ...blend.per100g };
  for (const key of Object.keys(per100g) as (keyof typeof per100g)[]) per100g[key] = ((per100g[key] ?? 0) * (100 - powder)) / 100;
  per100g.ash += 0.72 * powder;
  per100g.starch += 0.28 * powder;
  return {
    ...blend,
    per100g,
    source: "maker-label",
    leavening: { powder: label.powder ?? "pyrophosphate", share: powder / 100 },
    sodiumMg: (blend.sodiumMg ?? 0) + 112 * powder,
  };
}
