import { CoreError } from "../errors";
import type { Ingredient } from "./ingredient-schema";

/** A shelf: the ingredients that ship, and a kitchen's own beside them. */
export interface Shelf {
  get(id: string): Ingredient | undefined;
  all(): readonly Ingredient[];
  /** What of it is the kitchen's own. */
  own?: readonly Ingredient[];
}

const none: readonly Ingredient[] = [];
/** What of a shelf is the kitchen's own. */
export const ownOf = ({ own = none }: Shelf): readonly Ingredient[] => own;

/** The ingredient with that id. Throws `unknown-ingredient` with the nearest ids. */
export function ingredientOf(shelf: Shelf, id: string, path = "ingredientId"): Ingredient {
  const found = shelf.get(id);
  if (found) return found;
  const near = shelf
    .all()
    .filter((entry) => entry.id.includes(id) || id.split("-").some((word) => word.length > 3 && entry.id.includes(word)))
    .slice(0, 4)
    .map((entry) => entry.id);
  const hint = near.length > 0 ? `Near it: ${near.join(", ")}.` : "GET /api/ingredients lists the ids.";
  throw new CoreError("unknown-ingredient", `No ingredient has the id "${id}". ${hint}`, path);
}
