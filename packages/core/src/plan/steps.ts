import type { BakedAnalysis } from "../balance/readings";
import type { Simulation } from "../bake/simulation-schema";
import { listWords } from "../measure/list-words";
import { type AsideOf, placeOf, sortLines } from "../formula/components";
import type { Opened } from "../formula/open";
import type { Process } from "../formula/process-schema";
import { type Item, resolve } from "../formula/resolve";
import { stageChange } from "../formula/stage-words";
import { gramsText } from "../measure/amounts";
import type { Range } from "../measure/range-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import { isInclusion } from "../pantry/pieces";
import type { Vessel } from "../pantry/vessel-schema";
import { withOwnSteps } from "./own-steps";
import type { StepKind } from "./work-step";
import type { WorkStep } from "./work-step-schema";

/** Minutes that kitchens take, from quick to slow; confidence C. */
const TAKES: Record<Exclude<StepKind, "bake" | "change" | "look" | "turn" | "out" | "cool-tin" | "cool-rack" | "rest" | "own">, [number, number, number]> = {
  temper: [45, 60, 90],
  soak: [15, 20, 30],
  sour: [5, 8, 10],
  component: [10, 15, 25],
  pan: [1, 2, 4],
  preheat: [12, 15, 25],
  dry: [2, 4, 6],
  cream: [3, 5, 7],
  "cut-in": [3, 5, 8],
  whisk: [4, 6, 9],
  wet: [2, 3, 5],
  combine: [1, 2, 3],
  fold: [1, 1, 2],
  portion: [1, 3, 6],
  glaze: [2, 4, 6],
  cut: [1, 3, 5],
  wrap: [1, 2, 4],
}; // prettier-ignore
const takes = (kind: keyof typeof TAKES, times = 1): Range => {
  const [low, mid, high] = TAKES[kind];
  return { low: low * times, mid: mid * times, high: high * times };
};
const exactly = (minutes: number): Range => ({ low: minutes, mid: minutes, high: minutes });

/** What wants to stand wet before it is baked: grains left whole or rolled, seeds that gel. */
const SOAKS = /rolled-oats|jumbo-oats|steel-cut|flakes|groats|whole$|ground-flax|chia|cornmeal/;
/** A batter that has lost no more than a quarter of its lift is still itself; a doubled-up powder may wait longer than anyone lets it. */
const LONGEST_WAIT = 120;
/** What is dry and sieved together. */
const DRY: ReadonlySet<Ingredient["family"]> = new Set<Ingredient["family"]>([
  "binder",
  "leavener",
  "acid",
  "salt",
  "spice",
  "cocoa",
]);
/** By how much the times of hands grow with more than one vessel's worth of batter. */
const HANDS_PER_KG = 0.35;

const name = ({ ingredient }: Item): string => ingredient.name.replace(/, (?:whole|5 %).*$/, "").toLowerCase();

const weighed = (items: readonly Item[]): WorkStep["lines"] =>
  items.map(({ ingredient, massG }) => ({ ingredientId: ingredient.id, grams: massG }));

const listed = (items: readonly Item[]): string => listWords(items.map((item) => `${gramsText(item.massG)} ${name(item)}`));

function panWords({ shape, lining, preheated, warmC }: Vessel): string {
  const what = shape === "free" ? "the sheet" : shape === "griddle" ? "the griddle" : shape === "muffin" ? "the cups" : "the tin";
  const lined =
    lining === "paper" || lining === "paper-cups"
      ? `Line ${what} with paper`
      : lining === "none"
        ? `Have ${what} clean and dry`
        : lining === "greased-base"
          ? `Grease the base of ${what}, not its walls`
          : `Grease ${what}`;
  if (shape === "griddle") return "Have fat ready for the griddle";
  return preheated
    ? `Have fat ready for ${what}; it goes into the oven to heat`
    : warmC !== undefined
      ? `${lined}; warm it with fat in it`
      : lined;
}

/** What a kind of step needs where nothing else is said. */
const NEEDS: Partial<Record<StepKind, WorkStep["needs"]>> = {
  temper: "nothing",
  soak: "nothing",
  sour: "nothing",
  rest: "nothing",
  "cool-tin": "nothing",
  "cool-rack": "nothing",
  preheat: "oven",
  bake: "oven",
  cream: "mixer",
  whisk: "mixer",
};

/** Steps as they are written down, each under its id. */
class Sheet {
  readonly steps: WorkStep[] = [];
  /** Adds one, with what is weighed for it; gives back its id. */
  add(kind: StepKind, words: string, minutes: Range, items: readonly Item[] = [], more: Partial<WorkStep> = {}): string {
    const step = { id: kind, kind, words, minutes, needs: NEEDS[kind] ?? "hands", after: [], lines: weighed(items), ...more };
    this.steps.push(step);
    return step.id;
  }
}

/** The batter's items by what is done with them first. */
interface Sorted {
  soaked: Item[];
  soakedIn: Item | null;
  soured: Item[];
  dry: Item[];
  creamed: Item[];
  rubbed: Item[];
  wet: Item[];
  folded: Item[];
}

function sortedFor(items: readonly Item[], method: NonNullable<Process["method"]>): Sorted {
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
  const isDry = ({ ingredient }: Item): boolean =>
    isFlour(ingredient) || DRY.has(ingredient.family) || (ingredient.behaviour === "powder" && ingredient.family !== "sugar");
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
function bowl(sheet: Sheet, items: readonly Item[], process: Process, much: number): { ready: string; wetted: string } {
  const method = process.method ?? "muffin";
  const { soaked, soakedIn, soured, dry, creamed, rubbed, wet, folded } = sortedFor(items, method);
  const ready: string[] = [];
  const cold = creamed.filter(({ ingredient }) => ingredient.family === "fat");
  const temper = cold.length > 0 ? [sheet.add("temper", `Take ${listWords(cold.map(name))} out of the cold`, takes("temper"), [], { ahead: true })] : []; // prettier-ignore
  const sour =
    soured.length > 0 ? [sheet.add("sour", `Stir ${listed(soured)} together and let it turn`, takes("sour"), soured)] : [];
  if (soaked.length > 0) {
    const where = soakedIn ? ` in the ${name(soakedIn)}` : sour.length > 0 ? " in the soured milk" : "";
    const words = `Soak ${listed(soaked)}${where}; nothing that lifts is in yet`;
    ready.push(sheet.add("soak", words, takes("soak"), [...soaked, ...(soakedIn ? [soakedIn] : [])], { after: sour, ahead: sour.length === 0 })); // prettier-ignore
  } else ready.push(...sour);
  const sieved = sheet.add("dry", `Whisk ${listed(dry)} together until no streak of leavening is seen`, takes("dry", much), dry);
  ready.push(sieved);
  if (creamed.length > 0) ready.push(sheet.add("cream", `Cream ${listed(creamed)} until light`, takes("cream"), creamed, { after: temper })); // prettier-ignore
  if (rubbed.length > 0)
    ready.push(sheet.add("cut-in", `Cut ${listed(rubbed)}, cold, into the dry until the largest bits are like peas`, takes("cut-in", much), rubbed, { after: [sieved] })); // prettier-ignore
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

function wetStep(sheet: Sheet, wet: readonly Item[], method: NonNullable<Process["method"]>): string {
  if (method === "whisked") return sheet.add("whisk", `Whisk ${listed(wet)} until thick and pale`, takes("whisk"), wet);
  const verb = method === "blender" ? "Blend" : "Stir";
  const words = wet.length === 1 ? `Weigh ${listed(wet)}` : `${verb} ${listed(wet)} together`;
  return sheet.add("wet", words, takes("wet"), wet, method === "blender" ? { needs: "mixer" } : {});
}

/** From the door to the out: the bake, and what is done beside it. The id of the step that takes it out. */
function oven(sheet: Sheet, analysis: BakedAnalysis, simulation: Simulation | null, after: string[], wetted: string): string {
  const { bake, lift, given } = analysis;
  const hob = given.oven.mode === "hob" && !given.process.stages;
  const quarter = lift.standMinutes.quarter;
  const mid = simulation?.minutes ?? bake.minutes.mid;
  const baked = sheet.add(
    "bake",
    `${hob ? "Bake on the griddle" : "Into the oven"}: ${Math.round(bake.minutes.low)}–${Math.round(bake.minutes.high)} min, ${Math.round(bake.targetCoreC)} °C inside`,
    { low: Math.min(bake.minutes.low, mid), mid, high: Math.max(bake.minutes.high, mid) },
    [],
    {
      after,
      hot: true,
      ...(quarter === null ? {} : { within: { of: wetted, minutes: Math.min(LONGEST_WAIT, Math.max(1, Math.floor(quarter))), why: "after that a quarter of the oven's lift is gone" } }), // prettier-ignore
    },
  );
  const beside = (id: string, kind: StepKind, words: string, at: number): void =>
    void sheet.add(kind, words, exactly(1), [], { id, after, hot: true, at });
  simulation?.stages.slice(1).forEach((stage, k) => {
    const was = simulation.stages[k];
    if (was) beside(`change-${k + 2}`, "change", stageChange(was, stage), stage.from);
  });
  const turn = simulation?.turnAtMinutes ?? null;
  if (turn !== null && turn < mid) beside("turn", "turn", hob ? "Turn it over" : "Turn the tin, if the oven is uneven", turn);
  beside("look", "look", "Look first", bake.checkAtMinutes);
  return sheet.add("out", `Out: ${listWords(bake.signs.slice(0, 2))}`, exactly(1), [], { after: [baked], hot: true });
}

/**
 * How a formula is made, step by step, as its method, ingredients, vessel and bake say, with what the baker changed of it (`process.steps`): what goes on before, beside and after, how long each takes, how
 * long it may wait. `simulation` gives the bake its minutes, `warmMinutes` is how long the very oven heats. Throws as `readings`.
 */
export function stepsOf(
  input: Opened,
  analysis: BakedAnalysis,
  simulation: Simulation | null,
  shelf: Shelf = builtInShelf,
  warmMinutes?: number,
): WorkStep[] {
  const sheet = new Sheet();
  const { batter, asides } = sortLines(input.lines, input.components, shelf);
  const { vessel, oven: heat, process } = analysis.given;
  const made = asides.filter(({ lines }) => lines.length > 0);
  const inside = made.filter(({ component }) => placeOf(component) !== "after");
  const much = 1 + HANDS_PER_KG * Math.max(0, analysis.batch.massG / 1000 - 1);
  const parts = inside.map((aside) => componentStep(sheet, aside, shelf));
  const pan = sheet.add("pan", panWords(vessel), takes("pan"));
  const hob = heat.mode === "hob";
  const preheat = sheet.add(
    "preheat",
    `Heat the ${hob ? "griddle" : "oven"} to ${Math.round(heat.celsius)} °C${vessel.preheated && !hob ? ", the pan in it" : ""}`,
    hob
      ? GRIDDLE_HEATS
      : warmMinutes === undefined
        ? takes("preheat")
        : { low: 0.9 * warmMinutes, mid: warmMinutes, high: 1.2 * warmMinutes },
    [],
    { after: vessel.preheated ? [pan] : [], hot: true },
  );
  const { ready, wetted } = bowl(sheet, resolve(batter, shelf), process, much);
  const { pieces, pieceG } = analysis.fill;
  const later = process.stages?.some(({ topped }) => topped) ?? false;
  const portion = sheet.add(
    "portion",
    portionWords(vessel, pieces, pieceG, later ? [] : inside.map(({ component }) => component.name.toLowerCase())),
    takes("portion", 0.7 + pieces / 24),
    [],
    { after: [ready, pan, ...(later ? [] : parts)] },
  );
  let last = oven(sheet, analysis, simulation, [portion, preheat], wetted);
  const tin = simulation?.outOfTinMinutes ?? 0;
  const hung = process.cooling === "upside-down" ? ", upside down on a bottle's neck or its own feet" : "";
  if (tin > 0) last = sheet.add("cool-tin", `Cool in the tin${hung}`, exactly(tin), [], { after: [last], hot: true });
  const until = analysis.bake.restBeforeCuttingMinutes - tin;
  if (until > 0) last = sheet.add("cool-rack", "Cool on the rack", exactly(until), [], { after: [last] });
  for (const { component, lines } of made) {
    if (placeOf(component) !== "after") continue;
    const items = resolve(lines, shelf);
    const words = `Make ${component.name.toLowerCase()} of ${listed(items)}, and put it on`;
    last = sheet.add("glaze", words, takes("glaze"), items, { id: `glaze-${component.id}`, after: [last] });
  }
  const sliced = simulation === null || analysis.bake.restBeforeCuttingMinutes >= simulation.cutAfterMinutes;
  if (sliced && pieces === 1) last = sheet.add("cut", "Cut it", takes("cut"), [], { after: [last] });
  sheet.add("wrap", "Wrap what is not eaten today", takes("wrap"), [], { after: [last] });
  return withOwnSteps(sheet.steps, process.steps);
}

const GRIDDLE_HEATS: Range = { low: 4, mid: 6, high: 10 };

const combineWords: Record<NonNullable<Process["method"]>, string> = {
  muffin: "Stir the wet into the dry until no dry flour is seen",
  creaming: "Stir the dry into the creamed, in turns with the wet",
  "cut-in": "Stir the wet into the rubbed with a fork until it just holds",
  "one-bowl": "Stir everything together in one bowl",
  blender: "Blend the dry into the wet, no longer than it takes",
  whisked: "Fold the dry into the whisked, without knocking it down",
};

function portionWords({ shape, piece }: Vessel, pieces: number, pieceG: number, with_: readonly string[]): string {
  const each = gramsText(pieceG);
  const others = with_.length > 0 ? `, with ${listWords(with_)}` : "";
  if (shape === "muffin") return `Fill ${pieces} cups, ${each} each${others}`;
  if (shape === "griddle") return `Pour ${pieces} cakes of ${each}${others}`;
  if (shape === "free")
    return piece === "drop"
      ? `Drop ${pieces} heaps of ${each}${others}`
      : `Shape ${pieces} ${pieces === 1 ? "piece" : "pieces"} of ${each}${others}`;
  return pieces === 1 ? `Fill the tin: ${each}${others}` : `Fill ${pieces} tins, ${each} each${others}`;
}

/** A filling, topping or wash of its own, made before it is wanted; its id. */
function componentStep(sheet: Sheet, { component, lines }: AsideOf, shelf: Shelf): string {
  const items = resolve(lines, shelf);
  const cooked = component.cookedG === undefined ? "" : `, cooked down to ${gramsText(component.cookedG)} and cooled`;
  return sheet.add(
    "component",
    `Make ${component.name.toLowerCase()} of ${listed(items)}${cooked}`,
    takes("component", component.cookedG === undefined ? 0.5 : 2),
    items,
    { id: `component-${component.id}`, ahead: true },
  );
}

/** The longest chain of steps, minutes from the first hand to the cut: what a baker alone with one oven cannot be quicker than. */
export function shortestMinutes(steps: readonly WorkStep[]): number {
  const ends = new Map<string, number>();
  for (const { id, after, minutes, at } of steps) {
    // What goes on while it bakes adds nothing to the chain.
    if (at !== undefined) continue;
    const from = Math.max(0, ...after.map((one) => ends.get(one) ?? 0));
    ends.set(id, from + minutes.mid);
  }
  return Math.max(0, ...ends.values());
}
