import { kinds } from "../formula/kinds";
import { catalogue } from "../pantry/catalogue";
import type { Family } from "../pantry/ingredient-words";
import type { Allergen } from "../pantry/ingredient-schema";
import { isGround } from "./flours";
import type { Wish } from "./wish-schema";

/** A made-up wish before a made-up shelf; the same seed gives the same one. For properties and the report of designs. */
export function randomWish(seed: number): Wish {
  let state = (seed * 2_654_435_761) >>> 0;
  const next = (): number => {
    state = (state * 1_664_525 + 1_013_904_223) >>> 0;
    return state / 4_294_967_296;
  };
  for (let k = 0; k < 4; k++) next();
  const some = <T>(from: readonly T[], count: number): T[] => {
    const left = [...from];
    const out: T[] = [];
    while (out.length < count && left.length > 0) out.push(...left.splice(Math.floor(next() * left.length), 1));
    return out;
  };
  const of = (...families: Family[]): string[] => catalogue.filter(({ family }) => families.includes(family)).map(({ id }) => id);
  const knob = (): number | undefined => (next() < 0.5 ? undefined : Math.round(next() * 10) / 10);
  const [kind = "loaf"] = some(kinds, 1);
  const have = [
    ...some(catalogue.filter(isGround).map(({ id }) => id), 3 + Math.floor(next() * 6)),
    ...some(of("dairy", "cultured", "plant-milk"), Math.floor(next() * 4)),
    ...some(["butter", "sunflower-oil", "olive-oil", "coconut-oil", "plant-butter"], 1 + Math.floor(next() * 2)),
    ...some(["white-sugar", "honey", "light-brown-sugar", "maple-syrup"], 1 + Math.floor(next() * 2)),
    ...(next() < 0.75 ? ["egg"] : []),
    ...some(["xanthan", "psyllium-husk", "ground-flax", "guar"], Math.floor(next() * 3)),
    ...some(["soda", "powder-aluminium-free", "powder-double-acting", "cream-of-tartar", "vinegar"], 1 + Math.floor(next() * 4)),
  ]; // prettier-ignore
  const avoid = next() < 0.5 ? [] : some<Allergen>(["milk", "egg", "nuts", "soy"], 1);
  const useUp = next() < 0.7 ? [] : some(["pear", "banana-ripe", "carrot", "blueberries", "plain-yoghurt", "pumpkin-puree"], 1).map((ingredientId) => ({ ingredientId, grams: 50 + Math.round(next() * 250) })); // prettier-ignore
  const sliders = { rich: knob(), sweet: knob(), tall: knob(), moist: knob() };
  return {
    kind,
    have,
    avoid,
    ...(useUp.length > 0 ? { useUp } : {}),
    ...(next() < 0.7 ? {} : { variant: next() < 0.5 ? ("savoury" as const) : ("eggless" as const) }),
    ...Object.fromEntries(Object.entries(sliders).filter(([, value]) => value !== undefined)),
  };
}
