import type { FormulaRequest } from "@uprise/contract";
import type { BakeState, Formula } from "@uprise/core";

/** A formula as the calls that compute take it; after a remedy, with the grams that are really meant now. */
export function requestOf(
  { lines, components, kind, vessel, oven, process, measures }: Formula,
  remedied: BakeState["lines"],
): FormulaRequest {
  const now = remedied ? new Map(remedied.map(({ ingredientId, grams }) => [ingredientId, grams])) : null;
  const shown = lines.filter((line) => line.off !== true);
  const out = shown.map(({ ingredientId, grams, component, name }) => ({
    ...(ingredientId === undefined ? {} : { ingredientId }),
    ...(grams === undefined
      ? {}
      : { grams: now && ingredientId !== undefined && component === undefined ? (now.get(ingredientId) ?? grams) : grams }),
    ...(component === undefined ? {} : { component }),
    ...(name === undefined ? {} : { name }),
  }));
  const there = new Set(shown.map(({ ingredientId }) => ingredientId));
  const added = [...(now ?? [])].filter(([id]) => !there.has(id)).map(([ingredientId, grams]) => ({ ingredientId, grams }));
  return { lines: [...out, ...added], components, kind, vessel, oven, process, measures };
}
