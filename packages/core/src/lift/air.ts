import type { Process } from "../formula/process-schema";
import { type Item, massOf, totalOf } from "../formula/resolve";
import { airShare } from "./gas";

/** Egg is beaten to a foam from this share of the batter on; less than half of it, and whisking leaves no more than stirring does. */
const FOAMS_FROM = 0.1;

const foams = ({ id, family }: Item["ingredient"]): boolean => family === "egg" || id === "aquafaba";
const leavens = ({ leavening, family }: Item["ingredient"]): boolean => leavening?.soda !== undefined || leavening?.powder !== undefined || family === "fizzy"; // prettier-ignore

/**
 * Air that mixing leaves in a batter, as a share of its volume: that of its method, where there is something that foams. A batter without any gas of its
 * own, rich in egg and sugar, has its rise from what was beaten into them, as much as creaming leaves, whatever its method is called.
 */
export function airIn(items: readonly Item[], method: NonNullable<Process["method"]> = "muffin"): number {
  const mass = Math.max(1, massOf(items));
  const egg = items.reduce((sum, { ingredient, massG }) => sum + (foams(ingredient) ? massG : 0), 0) / mass;
  if (method === "whisked" && egg < FOAMS_FROM / 2) return airShare["one-bowl"].mid;
  const isBeaten = egg >= FOAMS_FROM && totalOf(items, "sugars") >= egg * mass && !items.some(({ ingredient }) => leavens(ingredient));
  return Math.max(airShare[method].mid, isBeaten ? airShare.creaming.mid : 0);
} // prettier-ignore
