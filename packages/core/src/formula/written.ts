/** What a sentence of a recipe's own method has the baker do. What the bake, the oven and the cooling take is computed, and stands in no such list. */
export const writtenKinds = ["pan", "prepare", "soak", "rest", "dry", "cream", "cut-in", "whisk", "wet", "blend", "combine", "fold", "portion", "top", "finish", "serve"] as const; // prettier-ignore
export type WrittenKind = (typeof writtenKinds)[number];
/** The steps of a method that a formula keeps. */
export const MOST_WRITTEN = 60;
/** What is done to a pan that is hot: it waits for the oven. */
export const inHotPan = /\b(?:hot|heated|smoking) (?:\w+ )?(?:skillet|pan|tin|pot|dish|griddle)\b/i;
