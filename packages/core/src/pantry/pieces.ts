import type { Ingredient } from "./ingredient-schema";

/** What a piece gives up to the batter around it: water, and with it the same share of its acid and sugar. Shares of its own. */
interface Release {
  /** While the batter is mixed and stands. */
  mixing: number;
  /** More, before the crumb sets around it. */
  oven: number;
}

/** Chopped fruit gives little, grated vegetables more, dried fruit rather drinks; kitchen habit, half to double, confidence C. */
const releases: Partial<Record<Ingredient["family"], Release>> = {
  fruit: { mixing: 0.05, oven: 0.15 },
  vegetable: { mixing: 0.2, oven: 0.2 },
  cheese: { mixing: 0.05, oven: 0.15 },
  meat: { mixing: 0.05, oven: 0.1 },
  "dried-fruit": { mixing: 0, oven: 0.1 },
  chocolate: { mixing: 0, oven: 0.1 },
  nut: { mixing: 0, oven: 0.05 },
  seed: { mixing: 0, oven: 0.05 },
};

/** Whether an ingredient lies in the batter as pieces and not as part of it. */
export const isInclusion = (ingredient: Ingredient): boolean =>
  ingredient.behaviour === "pieces" && releases[ingredient.family] !== undefined;

/** The share of its water, acid and sugar that an ingredient gives at mixing; all of it where it is no piece. */
export const releasedAtMixing = (ingredient: Ingredient): number =>
  isInclusion(ingredient) ? (releases[ingredient.family]?.mixing ?? 0) : 1;

/** The share given up by the time the crumb sets. */
export const releasedAtSetting = (ingredient: Ingredient): number => {
  const release = releases[ingredient.family];
  return isInclusion(ingredient) && release ? release.mixing + release.oven : 1;
};
