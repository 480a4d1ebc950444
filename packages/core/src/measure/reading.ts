/** What a line of the pasted text is. Only `ingredient` lines weigh anything. */
export const lineRoles = ["ingredient", "title", "heading", "step", "note"] as const;
export const questionKinds = [
  "amounts-disagree",
  "temperatures-disagree",
  "which-ingredient",
  "how-much",
  "which-one",
  "which-scale",
  "spelling",
  "figures",
  "holds",
] as const;
// prettier-ignore

export const componentRoles = ["batter", "filling", "topping", "glaze", "paste", "soaker", "sauce", "serve", "pan"] as const;
/** Where a component is while the batter bakes: under it, in its middle, on it, put on when it is out, or not with it at all. */
export const componentPlaces = ["base", "inside", "top", "after", "apart"] as const;

/** What figures without a unit are, in a text of them: grams, or nothing that is known. */
export const figuresAre = ["g", "unknown"] as const;
export type FiguresAre = (typeof figuresAre)[number];

/** What a stretch of a text became. */
export const accountedAs = ["line", "part", "fact", "step", "question", "aside"] as const;
