/** What may be wished of a whole formula in one press. */
export const wholeWishes = ["vegan", "no-egg", "no-milk", "no-nuts", "no-gum", "no-refined-sugar", "no-powder", "on-hand", "less-sugar", "less-salt", "sourer", "richer", "cheaper"] as const; // prettier-ignore
export type WholeWish = (typeof wholeWishes)[number];

export const wishWords: Record<WholeWish, string> = {
  vegan: "Vegan",
  "no-egg": "No egg",
  "no-milk": "No milk",
  "no-nuts": "No nuts",
  "no-gum": "No gum",
  "no-refined-sugar": "No refined sugar",
  "no-powder": "No baking powder",
  "on-hand": "From my shelf",
  "less-sugar": "Less sugar",
  "less-salt": "Less salt",
  sourer: "Sourer",
  richer: "Richer",
  cheaper: "Cheaper",
};
