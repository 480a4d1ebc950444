import { z } from "zod";
import type { Analysis } from "../balance/readings";
import type { Item } from "../formula/resolve";
import type { Keeping } from "./keeping";
import type { KeptPart } from "./perishable";

export const cautionSchema = z.object({
  id: z.enum([
    "moist-filling",
    "raw-flour",
    "raw-egg",
    "raw-egg-served",
    "warm-batter",
    "honey-infants",
    "boiled-sugar",
    "hot-oil",
    "hot-skillet",
    "closed-bottle",
  ]),
  /** Where it belongs: at the bowl, at the oven, when it is kept. */
  when: z.enum(["mixing", "oven", "keeping"]),
  words: z.string(),
});
export type Caution = z.infer<typeof cautionSchema>;

/** A raw batter that stands longer than this stands cold, min. */
const STANDS_MIN = 120;
const boiled = /\b(?:caramel|toffee|praline|brittle|honeycomb|nougat|syrup|fudge|dulce|butterscotch)\b/i;

/** A fat within so many kelvin of its smoke point is told. */
const NEAR_SMOKE_K = 15;

/** Where this very bake can hurt someone, each once and where it matters. °C. */
export function cautionsOf(items: readonly Item[], parts: readonly KeptPart[], { given }: Pick<Analysis, "given">, keeping: Pick<Keeping, "ends">): Caution[] {
  const { vessel, oven } = given;
  const stood = given.process.restMinutes ?? 0;
  const rawEgg = parts.some(({ items: own, place }) => (place === "after" || place === "apart") && own.some(({ ingredient }) => ingredient.family === "egg" && ingredient.per100g.water > 40));
  const boils = parts.some(({ items: own, name = "" }) => boiled.test(name) && own.some(({ ingredient }) => ingredient.family === "sugar" || ingredient.family === "syrup"));
  const has = (families: readonly string[]): boolean => items.some(({ ingredient }) => families.includes(ingredient.family));
  const hob = oven.mode === "hob" || vessel.shape === "griddle";
  const hot = vessel.preheated === true || vessel.start === "hot" || hob;
  const low = items
    .filter(({ ingredient }) => ingredient.smokeC !== undefined && ingredient.per100g.fat > 60)
    .sort((a, b) => (a.ingredient.smokeC ?? 0) - (b.ingredient.smokeC ?? 0))[0]?.ingredient;
  const smoke = low?.smokeC;
  return [
    ...(has(["egg"]) ? [{ id: "raw-egg" as const, when: "mixing" as const, words: "The batter holds raw egg and raw flour: no tasting of it, and hands and boards are washed after it." }] : has(["flour", "pulse-flour", "starch", "blend", "nut-flour"]) ? [{ id: "raw-flour" as const, when: "mixing" as const, words: "Raw flour can carry germs: no tasting of the batter; raw pulse flour also upsets the stomach." }] : []),
    ...(has(["fizzy"]) ? [{ id: "closed-bottle" as const, when: "mixing" as const, words: "Open the bottle cold and away from faces; never warm or shake it closed." }] : []),
    ...(hot && vessel.shape !== "griddle" ? [{ id: "hot-skillet" as const, when: "oven" as const, words: `The pan is at ${Math.round(oven.celsius)} °C when the batter meets it: dry glove, face away, it spits and steams.` }] : []),
    ...(hot && smoke !== undefined && oven.celsius >= smoke - NEAR_SMOKE_K ? [{ id: "hot-oil" as const, when: "oven" as const, words: `${low?.name} begins to smoke near ${smoke} °C, and the pan is at ${Math.round(oven.celsius)}: put it in last, never leave it, a lid and no water on a fire.` }] : []),
    ...(rawEgg ? [{ id: "raw-egg-served" as const, when: "keeping" as const, words: "What goes on when it is out holds egg that is not baked: pasteurised egg is safer, and none of it is for small children, pregnant or frail people." }] : []),
    ...(stood > STANDS_MIN && has(["egg", "dairy", "cultured", "plant-milk"]) ? [{ id: "warm-batter" as const, when: "mixing" as const, words: `The raw batter stands ${Math.round(stood)} min: longer than two hours it stands in the fridge.` }] : []),
    ...(items.some(({ ingredient }) => ingredient.id.includes("honey")) ? [{ id: "honey-infants" as const, when: "keeping" as const, words: "It holds honey: not for infants under one year, baked or raw." }] : []),
    ...(boils ? [{ id: "boiled-sugar" as const, when: "mixing" as const, words: "Boiled sugar is far hotter than water and sticks: long sleeves, cold water at hand, nobody small near it." }] : []),
    ...(keeping.ends === "filling" || keeping.ends === "perishable" ? [{ id: "moist-filling" as const, when: "keeping" as const, words: `${keeping.ends === "filling" ? "Its moist part" : "It"} stands no longer than two hours at room temperature; then 5 °C or colder.` }] : []),
  ];
} // prettier-ignore
