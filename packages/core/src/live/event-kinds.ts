/** How an amount came into the bowl. */
export const weighedBy = ["scale", "hand", "spoon"] as const;
export const probedBy = ["device", "hand"] as const;
export const judgedScores = ["rise", "crumb", "moistness", "taste"] as const;
