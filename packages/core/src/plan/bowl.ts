import { listWords } from "../measure/list-words";
import type { Process } from "../formula/process-schema";
import type { Item } from "../formula/resolve";
import type { Ingredient } from "../pantry/ingredient-schema";
import { mixingRole } from "../pantry/mixing-role";
import { isInclusion } from "../pantry/pieces";
import { exactly, listed, nameOf, type Sheet, takes } from "./sheet";

/** What wants to stand wet before it is baked: grains left whole or rolled, seeds that gel. */
const SOAKS = /rolled-oats|jumbo-oats|steel-cut|flakes|groats|whole$|ground-flax|chia|cornmeal/;
/** The batter's items by what is done with them first. */
interface Mixed {
  soaked: Item[];
  soakedIn: Item | null;
  soured: Item[];
  dry: Item[];
  creamed: Item[];
  rubbed: Item[];
  wet: Item[];
  folded: Item[];
}

function sortedFor(items: readonly Item[], method: NonNullable<Process["method"]>): Mixed {
  const those = (wanted: (i: Ingredient) => boolean): Item[] => items.filter(({ ingredient }) => wanted(ingredient));
  const soaked = those(({ id }) => SOAKS.test(id));
  const folded = those(isInclusion);
  const solid = those(({ family, state }) => family === "fat" && state === "solid");
  const sugars = those(({ family }) => family === "sugar");
  const vinegars = those(({ family }) => family === "vinegar");
  const milks = those(({ family }) => family === "dairy" || family === "plant-milk");
  const soured = vinegars.length > 0 && milks.length > 0 ? [...vinegars, ...milks] : [];
  const creamed = method === "creaming" ? [...solid, ...sugars] : [];
  const rubbed = method === "cut-in" ? solid : [];
  const early = new Set([...soaked, ...folded, ...soured, ...creamed, ...rubbed]);
  const isDry = ({ ingredient }: Item): boolean => mixingRole(ingredient) === "dry";
  const rest = items.filter((item) => !early.has(item));
  const wet = rest.filter((item) => !isDry(item));
  const soakedIn = soured.length > 0 ? null : (wet.find(({ ingredient }) => ingredient.per100g.water > 80 && ingredient.family !== "egg") ?? null); // prettier-ignore
  return {
    soaked,
    soakedIn: soaked.length > 0 ? soakedIn : null,
    soured,
    dry: rest.filter(isDry),
    creamed,
    rubbed,
    wet: soaked.length > 0 ? wet.filter((item) => item !== soakedIn) : wet,
    folded,
  };
}

/** Everything up to a batter in the bowl; the id of the step after which it may be portioned, and of the one that wets the leavening. */
export function bowl(sheet: Sheet, items: readonly Item[], process: Process, much: number): { ready: string; wetted: string } {
  const method = process.method ?? "muffin";
  const { soaked, soakedIn, soured, dry, creamed, rubbed, wet, folded } = sortedFor(items, method);
  const ready: string[] = [];
  const cold = creamed.filter(({ ingredient }) => ingredient.family === "fat");
  const temper = cold.length > 0 ? [sheet.add("temper", `Take ${listWords(cold.map(nameOf))} out of the cold`, takes("temper"), [], { ahead: true })] : []; // prettier-ignore
  const sour =
    soured.length > 0 ? [sheet.add("sour", `Stir ${listed(soured)} together and let it turn`, takes("sour"), soured)] : [];
  if (soaked.length > 0) {
    const where = soakedIn ? ` in the ${nameOf(soakedIn)}` : sour.length > 0 ? " in the soured milk" : "";
    const words = `Soak ${listed(soaked)}${where}; nothing that lifts is in yet`;
    ready.push(sheet.add("soak", words, takes("soak"), [...soaked, ...(soakedIn ? [soakedIn] : [])], { after: sour, ahead: sour.length === 0 })); // prettier-ignore
  } else ready.push(...sour);
  const sieved = dry.length > 0 ? [sheet.add("dry", dryWords(dry), takes("dry", much), dry)] : [];
  ready.push(...sieved);
  if (creamed.length > 0) ready.push(sheet.add("cream", `Cream ${listed(creamed)} until light`, takes("cream"), creamed, { after: temper })); // prettier-ignore
  if (rubbed.length > 0)
    ready.push(sheet.add("cut-in", `Cut ${listed(rubbed)}, cold, into the dry until the largest bits are like peas`, takes("cut-in", much), rubbed, { after: sieved })); // prettier-ignore
  if (wet.length > 0) ready.push(wetStep(sheet, wet, method));
  const wetted = sheet.add("combine", combineWords[method], takes("combine", much), [], { after: ready });
  let last = wetted;
  if (folded.length > 0) {
    const moist = folded.some(({ ingredient }) => ingredient.family === "fruit");
    const words = `Fold in ${listed(folded)}${moist ? "; dust what is wet with a spoonful of the flour" : ""}`;
    last = sheet.add("fold", words, takes("fold", much), folded, { after: [last] });
  }
  const stands = process.restMinutes ?? 0;
  if (stands > 0) last = sheet.add("rest", "Let it stand, covered", exactly(stands), [], { after: [last] });
  return { ready: last, wetted };
}

/** How the dry are made one. */
export function dryWords(dry: readonly Item[]): string {
  if (dry.length === 1) return `Weigh ${listed(dry)}`;
  const lifts = dry.some(({ ingredient }) => ingredient.family === "leavener");
  return `Whisk ${listed(dry)} together${lifts ? " until no streak of leavening is seen" : ""}`;
}

export function wetStep(sheet: Sheet, wet: readonly Item[], method: NonNullable<Process["method"]>): string {
  if (method === "whisked" && wet.some(({ ingredient }) => ingredient.family.startsWith("egg")))
    return sheet.add("whisk", `Whisk ${listed(wet)} until thick and pale`, takes("whisk"), wet);
  const verb = method === "blender" ? "Blend" : "Stir";
  const words = wet.length === 1 ? `Weigh ${listed(wet)}` : `${verb} ${listed(wet)} together`;
  return sheet.add("wet", words, takes("wet"), wet, method === "blender" ? { needs: "mixer" } : {});
}

export const combineWords: Record<NonNullable<Process["method"]>, string> = {
  muffin: "Stir the wet into the dry until no dry flour is seen",
  creaming: "Stir the dry into the creamed, in turns with the wet",
  "cut-in": "Stir the wet into the rubbed with a fork until it just holds",
  "one-bowl": "Stir everything together in one bowl",
  blender: "Blend the dry into the wet, no longer than it takes",
  whisked: "Fold the dry into the whisked, without knocking it down",
};
