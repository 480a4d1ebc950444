/** Heats that are not computed here: neither an oven nor a plate. */
export const elsewheres = [
  "microwave",
  "steam",
  "slow-cooker",
  "deep-fry",
  "waffle-iron",
  "simmer",
  "bread-machine",
  "fire",
] as const;
export type Elsewhere = (typeof elsewheres)[number];
export const elsewhereWords: Record<Elsewhere, string> = {
  microwave: "cooked in a microwave",
  steam: "steamed",
  "slow-cooker": "cooked in a slow cooker",
  "deep-fry": "fried in deep fat",
  "waffle-iron": "cooked between the plates of a waffle iron",
  simmer: "simmered in liquid",
  "bread-machine": "baked in a bread machine",
  fire: "baked over a fire",
};
