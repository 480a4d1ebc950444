import type { Formula } from "../formula/formula";
import { weigh } from "../measure/weigh";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { Packet } from "../pantry/packet-schema";
import { groups } from "./groups";

const MONTH_MS = 30.44 * 86_400_000;

/** Months since the packet of the formula's baking powder was opened, by the packets on the shelf at that time; the one opened last counts. */
export function powderAgeOf(
  { lines }: Pick<Formula, "lines">,
  packets: readonly Packet[],
  shelf: Shelf,
  at: string,
): number | undefined {
  const powders = new Set(
    lines.flatMap(({ ingredientId, off }) => {
      const ingredient = off ? undefined : shelf.get(ingredientId ?? "");
      return ingredient && groups.powder(ingredient) ? [ingredient.id] : [];
    }),
  );
  const opened = packets
    .flatMap(({ ingredientId, openedOn }) => (powders.has(ingredientId) && openedOn !== undefined ? [Date.parse(openedOn)] : []))
    .filter((time) => time <= Date.parse(at));
  if (opened.length === 0) return undefined;
  return Math.round((10 * (Date.parse(at) - Math.max(...opened))) / MONTH_MS) / 10;
}

/** What is measured by the teaspoon where there is no scale. */
const SPOONED: ReadonlySet<Ingredient["family"]> = new Set<Ingredient["family"]>(["leavener", "acid", "salt", "binder"]);

/** One thing of a formula that bakers measure by volume, with what that volume weighs by the table, g. */
export interface ByVolume {
  ingredientId: string;
  name: string;
  unit: "cup" | "tsp";
  meantG: number;
}

/** The flours of a formula by the cup, its leaveners, salt and binders by the teaspoon: what a weighed cup or spoon is held against. */
export function cupsToWeigh({ lines, measures }: Pick<Formula, "lines" | "measures">, shelf: Shelf): ByVolume[] {
  const seen = new Set<string>();
  return lines.flatMap(({ ingredientId = "", component, off }): ByVolume[] => {
    const ingredient = shelf.get(ingredientId);
    const unit = ingredient && isFlour(ingredient) ? "cup" : ingredient && SPOONED.has(ingredient.family) ? "tsp" : null;
    if (!ingredient || unit === null || component !== undefined || off || seen.has(ingredientId)) return [];
    seen.add(ingredientId);
    const grams = weigh({ quantity: { low: 1, mid: 1, high: 1 }, unit }, ingredient, measures);
    return grams ? [{ ingredientId, name: ingredient.name, unit, meantG: grams.mid }] : [];
  });
}
