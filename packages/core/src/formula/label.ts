import { CoreError } from "../errors";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import type { Range } from "../measure/range-schema";
import type { PowderId } from "../pantry/ingredient-words";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { PrintedTable } from "../pantry/printed-table";
import { type BlendShares, blendShares } from "./blend-shares";
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
  /** What its table says of 100 g, and the percentages that stand beside ingredients, by id. */
  nutrition?: PrintedTable | undefined;
  percents?: Readonly<Record<string, number>> | undefined;
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

interface ReadLabel {
  gum: number;
  powder: number;
  gums: Ingredient[];
  bulk: Ingredient[];
}
function readLabel(label: BlendLabel, shelf: Shelf): ReadLabel {
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
  return { gum, powder, gums, bulk };
}

const isSilent = ({ nutrition = {}, percents = {} }: BlendLabel): boolean =>
  Object.values(nutrition).every((one) => one === undefined) && Object.keys(percents).length === 0;

/** The likely share of each flour or starch of a blend, of the whole blend, by id. Errors as in `blendFromLabel`. */
export function likelyShares(
  label: BlendLabel,
  shelf: Shelf,
): Omit<BlendShares, "shares"> & { shares: ({ id: string } & Range)[] } {
  const { gum, powder, bulk } = readLabel(label, shelf);
  const whole = (100 - gum - powder) / 100;
  const known = { nutrition: label.nutrition, percents: bulk.map(({ id }) => label.percents?.[id]) };
  const { shares, misfit } = blendShares(bulk, isSilent(label) ? {} : known, whole);
  const byOrder = sharesByOrder(bulk.length);
  return {
    misfit,
    shares: shares.map(({ low, mid, high }, k) => {
      // With the order alone the mean is known exactly.
      const exact = isSilent(label) || misfit ? (byOrder[k] ?? mid) : mid;
      return { id: bulk[k]?.id ?? "", low: whole * Math.min(low, exact), mid: whole * exact, high: whole * Math.max(high, exact) };
    }),
  };
}

/**
 * A bought blend as an ingredient of the kitchen. Flours and starches get their likely shares by order, table and printed percentages; gum and powder the
 * percentage of the label, or 0.5 % and none where it is silent. Throws `unknown-ingredient`, `bad-amount`.
 */
export function blendFromLabel(label: BlendLabel, shelf: Shelf): Ingredient {
  const { gum, powder, gums, bulk } = readLabel(label, shelf);
  const { shares } = likelyShares(label, shelf);
  const parts = [
    ...bulk.map((ingredient, i) => ({ ingredient, massG: 100 * (shares[i]?.mid ?? 0) })),
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
