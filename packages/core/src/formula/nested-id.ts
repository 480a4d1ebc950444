/** A line whose ingredient is itself a formula carries this before the formula's id. */
const PREFIX = "formula:";

export const formulaLineId = (formulaId: string): string => `${PREFIX}${formulaId}`;

/** The id of the formula that an ingredient id stands for, or null for an ingredient. */
export const nestedId = (ingredientId: string): string | null =>
  ingredientId.startsWith(PREFIX) ? ingredientId.slice(PREFIX.length) : null;
