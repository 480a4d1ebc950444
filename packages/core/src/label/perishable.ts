import type { ComponentPlace, ComponentRole } from "../formula/components";
import { type Item, massOf } from "../formula/resolve";
import type { Range } from "../measure/range-schema";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import table from "./data/keeping.json";
import { waterActivity } from "./water-activity";

/** A part of a bake: what it is made of, where it is, and how much water has gone from it. */
export interface KeptPart {
  items: readonly Item[];
  place: ComponentPlace | "batter";
  lostG: Range;
  name?: string;
  role?: ComponentRole;
}

/*
 * What bacteria grow in: food that is moist, not sour, and feeds them. By the tables of pH and water activity that food codes use (data), for what
 * was heated through and for what was not. A crumb of flour and egg that was baked through is left out by long use: it is bread.
 */
interface Limit {
  activity: number;
  ph: number;
}
const growth = table.growth as { baked: Limit[]; unbaked: Limit[] };

/** Whether bacteria may grow at this water activity and pH. */
export const grows = (activity: number, ph: number, baked: boolean): boolean =>
  ph > ((baked ? growth.baked : growth.unbaked).find((limit) => activity <= limit.activity)?.ph ?? 0);

/** Shares of a part, of its mass, from which on it counts: the least of meat and of cheese, of what feeds in a filling, of fresh fruit. */
const MEAT_SHARE = 0.01;
const CHEESE_SHARE = 0.05;
const FEEDS_SHARE = 0.15;
const FRESH_FEEDS_SHARE = 0.1;
const CREAMY_SHARE = 0.25;
const FRUIT_SHARE = 0.3;
/** Grams of egg, milk and cheese to a gram of flour from which on a batter sets as a custard. */
const CUSTARD_RATIO = 3;
/** And to a gram of all else that is dry: a mound of coconut and egg white, a cake of chocolate and egg is none. */
const CUSTARD_TO_DRY = 1.2;
/** A wash that was baked on is less than this of the whole (an egg to a small batch, most of it left in the cup): it dries in the oven. */
const WASH_SHARE = 0.25;
/** Drier than this nothing of the kind grows, whatever it is. */
const NOTHING_GROWS = 0.85;
/** Under this core egg has not set, °C. */
const BAKED_THROUGH_C = 75;
/** Of what has no pH of its own. */
const USUAL_PH = 6.3;

const moist = ({ per100g }: Ingredient): boolean => per100g.water > 40;
const isMeat = ({ family }: Ingredient): boolean => family === "meat";
const isCheese = ({ family }: Ingredient): boolean => family === "cheese";
const isCreamy = (one: Ingredient): boolean => (one.family === "dairy" || one.family === "cultured" || one.family === "plant-milk") && moist(one); // prettier-ignore
const isEgg = (one: Ingredient): boolean => (one.family === "egg" || one.id.endsWith("tofu")) && moist(one);
const isFresh = (one: Ingredient): boolean => (one.family === "fruit" || one.family === "vegetable" || one.family === "puree") && one.per100g.water > 70; // prettier-ignore
const feeds = (one: Ingredient): boolean => isMeat(one) || isCheese(one) || isCreamy(one) || isEgg(one);

const gramsOf = (items: readonly Item[], is: (ingredient: Ingredient) => boolean): number =>
  items.reduce((g, { massG, ingredient }) => g + (is(ingredient) ? massG : 0), 0);
const shareOf = (items: readonly Item[], is: (ingredient: Ingredient) => boolean): number =>
  gramsOf(items, is) / Math.max(1e-9, massOf(items));

/** About the pH of a mass: that of its moist things by the water they bring. */
export function roughPh(items: readonly Item[]): number {
  let water = 0;
  let sum = 0;
  for (const { massG, ingredient } of items) {
    const grams = (massG * ingredient.per100g.water) / 100;
    if (grams <= 0 || ingredient.family === "water") continue;
    water += grams;
    sum += grams * (ingredient.ph ?? USUAL_PH);
  }
  return water > 0 ? sum / water : USUAL_PH;
}

/** Brushed on and baked: what stuck of it has dried. */
export const isWash = ({ items, place, role }: KeptPart, wholeG: number): boolean =>
  role === "glaze" && place !== "after" && massOf(items) < WASH_SHARE * wholeG && shareOf(items, isCheese) === 0;

/** Why a part must be kept cold, in words that name it; null where it need not. */
export function coldReason(part: KeptPart, wholeG: number, targetCoreC: number): string | null {
  const { items, place, lostG, name = "" } = part;
  if (place === "apart" || items.length === 0) return null;
  const activity = waterActivity(items, lostG);
  if (activity.high <= NOTHING_GROWS) return null;
  const share = (is: (ingredient: Ingredient) => boolean): number => shareOf(items, is);
  const baked = place !== "after";
  const what = place === "batter" ? "It" : name === "" ? "A part of it" : `Its part “${name.toLowerCase()}”`;
  if (share(isMeat) > MEAT_SHARE) return `${what} holds meat: bacteria grow in it at room temperature, baked or not.`;
  if (isWash(part, wholeG)) return null;
  if (share(isCheese) > CHEESE_SHARE) return `${what} holds cheese and is moist: it does not stand at room temperature.`;
  const flour = gramsOf(items, isFlour);
  if (place === "batter") {
    if (targetCoreC < BAKED_THROUGH_C && share(isEgg) > 0) return "Its middle is not baked through, and holds egg.";
    const egg = gramsOf(items, feeds);
    const dry = items.reduce(
      (g, { massG, ingredient }) => g + (feeds(ingredient) ? 0 : (massG * (100 - ingredient.per100g.water)) / 100),
      0,
    );
    const custard = egg > CUSTARD_RATIO * flour && egg > CUSTARD_TO_DRY * dry && shareOf(items, feeds) > FEEDS_SHARE;
    return custard ? "It sets by egg and milk more than by flour, as a custard does: it does not stand at room temperature." : null;
  }
  const ph = roughPh(items);
  if (baked) return share(feeds) > FEEDS_SHARE && gramsOf(items, feeds) > flour && grows(activity.high, ph, true) ? `${what} is moist, holds milk, egg or the like and is not sour: bacteria grow in it at room temperature.` : null; // prettier-ignore
  if (share(isFresh) > FRUIT_SHARE)
    return `${what} is fresh fruit or vegetable that was not baked: cut, it does not stand at room temperature.`;
  if (share((one) => isCreamy(one) || isCheese(one)) > CREAMY_SHARE) return `${what} is cream, yoghurt or the like that was not baked: it does not stand at room temperature.`; // prettier-ignore
  if (share(isEgg) > FRESH_FEEDS_SHARE) return `${what} holds egg that was not baked: it does not stand at room temperature.`; // prettier-ignore
  return share(feeds) > FRESH_FEEDS_SHARE && grows(activity.high, ph, false) ? `${what} is moist, holds milk, egg or the like and is not sour: bacteria grow in it at room temperature.` : null; // prettier-ignore
}
