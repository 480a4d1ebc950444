import type { BakedAnalysis } from "../balance/readings";
import { CUT_C } from "../bake/outcome";
import { ROOM_C } from "../bake/ready";
import type { Simulation } from "../bake/simulation-schema";
import { type AsideOf, placeOf, sortLines, type WeighedLine } from "../formula/components";
import type { Opened } from "../formula/open";
import { type Item, resolve } from "../formula/resolve";
import { stageChange } from "../formula/stage-words";
import { inHotPan } from "../formula/written";
import type { WrittenStep } from "../formula/written-schema";
import { gramsText } from "../measure/amounts";
import { listWords, minuteSpan } from "../measure/list-words";
import type { Range } from "../measure/range-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import type { Vessel } from "../pantry/vessel-schema";
import { bowl } from "./bowl";
import { withOwnSteps } from "./own-steps";
import { exactly, listed, Sheet, takes } from "./sheet";
import type { StepKind } from "./work-step";
import type { WorkStep } from "./work-step-schema";
import { withAmounts, writtenBowl, type WrittenPlan, writtenPlan } from "./written-bowl";

/** A batter that has lost no more than a quarter of its lift is still itself; a doubled-up powder may wait longer than anyone lets it. */
const LONGEST_WAIT = 120;
/** By how much the times of hands grow with more than one vessel's worth of batter. */
const HANDS_PER_KG = 0.35;

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

/** From the door to the out: the bake, and what is done beside it. The id of the step that takes it out. */
function oven(sheet: Sheet, analysis: BakedAnalysis, simulation: Simulation | null, after: string[], wetted: string): string {
  const { bake, lift, given } = analysis;
  const hob = given.oven.mode === "hob" && !given.process.stages;
  const quarter = lift.standMinutes.quarter;
  const mid = simulation?.minutes ?? bake.minutes.mid;
  const baked = sheet.add(
    "bake",
    `${hob ? "Bake on the griddle" : "Into the oven"}: ${minuteSpan(bake.minutes)} min, ${Math.round(bake.targetCoreC)} °C inside`,
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
  if (turn !== null && turn < mid)
    beside(
      "turn",
      "turn",
      hob
        ? `Turn it over${againWords(simulation?.againAtMinutes ?? [])}`
        : `Turn the ${given.vessel.shape === "free" ? "sheet" : "tin"}, if the oven is uneven`,
      turn,
    );
  beside("look", "look", "Look first", bake.checkAtMinutes);
  return sheet.add("out", `Out: ${listWords(bake.signs.slice(0, 2))}`, exactly(1), [], { after: [baked], hot: true });
}

/** What is thick is turned until its middle is done. */
const againWords = (minutes: readonly number[]): string =>
  minutes.length === 0 ? "" : `, and again at ${minutes.map((at) => Math.round(at)).join(", ")} min`;

/** “To finish”, “for the top”: a name that says where it goes, not what it is. */
const isFinish = ({ name }: AsideOf["component"]): boolean => /^(?:to|for)\b/i.test(name);
const makeWords = ({ component, lines }: AsideOf, shelf: Shelf): string =>
  isFinish(component) ? `Make ready ${component.name.toLowerCase()}: ${listed(resolve(lines, shelf))}` : `Make ${component.name.toLowerCase()} of ${listed(resolve(lines, shelf))}`; // prettier-ignore
/** What stands beside the batter, by what is done with it. */
interface Beside {
  pan: Item[];
  made: AsideOf[];
  brushed: AsideOf[];
  late: AsideOf[];
}
/** Brushed, strewn or laid on as it is: nothing is made of it beforehand. */
const asItIs = ({ component, lines }: AsideOf): boolean => placeOf(component) === "top" && component.cookedG === undefined && (component.role === "glaze" || lines.length === 1); // prettier-ignore
function besideOf(asides: readonly AsideOf[], shelf: Shelf): Beside {
  const filled = asides.filter(({ lines }) => lines.length > 0);
  const pan = filled.filter(({ component }) => component.role === "pan");
  const late = filled.filter(({ component }) => !pan.some((one) => one.component === component) && (placeOf(component) === "after" || placeOf(component) === "apart")); // prettier-ignore
  const early = filled.filter((one) => !pan.includes(one) && !late.includes(one));
  return {
    pan: resolve(pan.flatMap(({ lines }) => lines), shelf),
    made: early.filter((one) => !asItIs(one)),
    brushed: early.filter(asItIs),
    late,
  };
} // prettier-ignore

/** What a written step takes of lines. */
const takenFrom = (step: WrittenStep, lines: readonly WeighedLine[], shelf: Shelf): Item[] =>
  resolve(lines.filter(({ id }) => id !== undefined && step.lines.includes(id)), shelf); // prettier-ignore
const takenIn = (steps: readonly WrittenStep[], id: string | undefined): boolean =>
  id !== undefined && steps.some(({ lines }) => lines.includes(id));
const takenBy = (steps: readonly WrittenStep[], { lines }: AsideOf): boolean => lines.some(({ id }) => id !== undefined && steps.some((step) => step.lines.includes(id))); // prettier-ignore
/** Lines that a step elsewhere takes are not weighed twice. */
const without = (one: AsideOf, steps: readonly WrittenStep[]): AsideOf => ({ ...one, lines: one.lines.filter(({ id }) => id === undefined || !steps.some((step) => step.lines.includes(id))) }); // prettier-ignore

/** A brush, a sieve, a hand: how what goes on top as it is gets there. */
function topWords({ component, lines }: AsideOf, shelf: Shelf): string {
  const items = resolve(lines, shelf);
  const wet = component.role === "glaze" || items.every(({ ingredient }) => ingredient.behaviour === "liquid");
  return `${wet ? "Brush with" : "Scatter over it"} ${listed(items)}`;
}

/**
 * How a formula is made, step by step: as the recipe tells it where it does, else as method, foods, vessel and bake say, with what the baker changed
 * of it (`process.steps`): what goes on before, beside and after, how long each takes, how long it may wait. `simulation` gives the bake its
 * minutes, `warmMinutes` is how long the very oven heats. Throws as `readings`.
 */
export function stepsOf(
  opened: Opened,
  analysis: BakedAnalysis,
  simulation: Simulation | null,
  shelf: Shelf = builtInShelf,
  warmMinutes?: number,
): WorkStep[] {
  const sheet = new Sheet();
  // What came out of a nested formula is weighed where the line that held it is named.
  const input = { ...opened, lines: opened.lines.map((line) => ({ ...line, id: line.id ?? line.outOf })) };
  const { batter, asides } = sortLines(input.lines, input.components, shelf);
  const { vessel, process } = analysis.given;
  const plan = writtenPlan(input.process ?? {});
  const beside = besideOf(asides, shelf);
  const much = 1 + HANDS_PER_KG * Math.max(0, analysis.batch.massG / 1000 - 1);
  const told = plan ? [...plan.bowl, ...plan.filling, ...plan.top, ...plan.after] : [];
  const parts = beside.made.map((aside) => without(aside, told)).filter(({ lines }) => lines.length > 0).map((aside) => componentStep(sheet, aside, shelf)); // prettier-ignore
  // What goes into the hot pan waits for it; everything else is done to it cold.
  const [cold, hot] = [
    plan?.pan.filter(({ words }) => !inHotPan.test(words)) ?? [],
    plan?.pan.filter(({ words }) => inHotPan.test(words)) ?? [],
  ];
  const coldItems = hot.length > 0 ? [] : beside.pan;
  const panSaid = cold.map(({ words }) => words).join("; ");
  const pan = sheet.add("pan", withAmounts(panSaid === "" ? panWords(vessel) : panSaid, coldItems), takes("pan"), coldItems);
  const preheat = preheatStep(sheet, analysis, pan, warmMinutes);
  const asideLines = [...beside.made, ...beside.brushed].flatMap(({ lines }) => lines);
  const beyond = plan ? [...plan.filling, ...plan.top, ...plan.after] : [];
  const bowled = [
    ...batter.filter(({ id }) => !takenIn(beyond, id)),
    ...asideLines.filter(({ id }) => takenIn(plan?.bowl ?? [], id)),
  ];
  const { ready, wetted } =
    plan && plan.bowl.length > 0
      ? writtenBowl(
          sheet,
          plan.bowl,
          bowled,
          new Set(input.lines.flatMap(({ id, off }) => (id === undefined || off ? [] : [id]))),
          shelf,
          process,
          much,
        )
      : bowl(sheet, resolve(bowled, shelf), process, much);
  const loose = [...batter, ...asideLines];
  const { pieces, pieceG } = analysis.fill;
  const later = process.stages?.some(({ topped }) => topped) ?? false;
  const inTin = beside.made.filter(({ component }) => !isFinish(component)).map(({ component }) => component.name.toLowerCase());
  const fillItems = plan ? plan.filling.flatMap((step) => takenFrom(step, loose, shelf)) : [];
  const greased = hot.length > 0 ? [sheet.add("prepare", withAmounts(hot.map(({ words }) => words).join("; "), beside.pan), takes("pan"), beside.pan, { id: "pan-hot", after: [preheat, ready], hot: true })] : []; // prettier-ignore
  const portion = sheet.add(
    "portion",
    withAmounts(portionWords(vessel, pieces, pieceG, later ? [] : inTin, plan?.filling ?? []), fillItems), // prettier-ignore
    takes("portion", 0.7 + pieces / 24),
    fillItems,
    { after: [ready, pan, ...greased, ...(later ? [] : parts)] },
  );
  const topped = topSteps(sheet, plan, beside, loose, shelf, portion);
  const out = oven(sheet, analysis, simulation, [topped, preheat], wetted);
  afterOven(sheet, { analysis, simulation, plan, beside, loose, shelf }, out);
  return withOwnSteps(inTheirOrder(sheet.steps, ready), process.steps);
}

/** The tin and the oven stand where they are begun: so long before the batter is ready as the oven takes to heat. */
function inTheirOrder(steps: readonly WorkStep[], ready: string): WorkStep[] {
  const early = steps.filter(({ kind }) => kind === "pan" || kind === "preheat");
  const others = steps.filter((step) => !early.includes(step));
  const heats = early.reduce((most, { minutes }) => Math.max(most, minutes.mid), 0);
  let at = others.findIndex(({ id }) => id === ready) + 1;
  for (let minutes = 0; at > 0 && minutes < heats; at--) minutes += others[at - 1]?.minutes.mid ?? 0;
  return [...others.slice(0, at), ...early, ...others.slice(at)];
}

function preheatStep(sheet: Sheet, { given: { vessel, oven: heat } }: BakedAnalysis, pan: string, warmMinutes: number | undefined): string {
  const hob = heat.mode === "hob";
  return sheet.add(
    "preheat",
    `Heat the ${hob ? "griddle" : "oven"} to ${Math.round(heat.celsius)} °C${vessel.preheated && !hob ? ", the pan in it" : ""}`,
    hob ? GRIDDLE_HEATS : warmMinutes === undefined ? takes("preheat") : { low: 0.9 * warmMinutes, mid: warmMinutes, high: 1.2 * warmMinutes },
    [],
    { after: vessel.preheated ? [pan] : [], hot: true },
  );
} // prettier-ignore

/** What is brushed or strewn on what is filled; the id of the last such step, or of the filling. */
function topSteps(
  sheet: Sheet,
  plan: WrittenPlan | null,
  { brushed }: Beside,
  loose: readonly WeighedLine[],
  shelf: Shelf,
  portion: string,
): string {
  let last = portion;
  plan?.top.forEach((step, k) => {
    const items = takenFrom(step, loose, shelf);
    last = sheet.add("top", withAmounts(step.words, items), takes("top"), items, { id: `top-${k + 1}`, after: [last] });
  });
  for (const aside of brushed) {
    const left = plan ? without(aside, [...plan.bowl, ...plan.filling, ...plan.top, ...plan.after]) : aside;
    if (left.lines.length > 0) last = sheet.add("top", topWords(left, shelf), takes("top"), resolve(left.lines, shelf), { id: `top-${aside.component.id}`, after: [last] }); // prettier-ignore
  }
  return last;
}

/** So much warmer than the kitchen a bake may be when it is wrapped, K: no water settles in the bag. Kitchen rule, confidence C. */
const WRAP_K = 6;
/** Minutes from the oven until it may be wrapped: the same exponential that took its middle to the cut goes on. */
function wrapAfter(simulation: Simulation | null, targetC: number, kitchenC: number): number {
  if (!simulation || simulation.cutAfterMinutes <= 0) return 60;
  const hot = Math.max(CUT_C + 1, targetC);
  const over = (celsius: number): number => Math.max(1, celsius - kitchenC);
  const tau = simulation.cutAfterMinutes / Math.log(over(hot) / over(CUT_C));
  return Math.round(tau * Math.log(over(hot) / WRAP_K));
}

const warm =
  /\b(?:while|still|as soon as|straight away|at once|immediately)\b[^.]*\b(?:hot|warm|out|away|once|immediately)?|\bstraight from the oven\b/i;

/** Less on the rack than this is no step of its own, min. */
const LEAST_RACK_MIN = 3;
/** Cooling, what is put on when it is out, the cut, the wrapping. */
function afterOven(
  sheet: Sheet,
  { analysis, simulation, plan, beside, loose, shelf }: { analysis: BakedAnalysis; simulation: Simulation | null; plan: WrittenPlan | null; beside: Beside; loose: readonly WeighedLine[]; shelf: Shelf },
  out: string,
): void {
  const { process, vessel } = analysis.given;
  const finishOf = (aside: AsideOf): WrittenStep | undefined =>
    plan?.after.find(({ kind, lines }) => kind === "finish" && aside.lines.some(({ id }) => id !== undefined && lines.includes(id)));
  // What is poured over while it is hot waits for no cooling.
  const hot = beside.late.filter((aside) => warm.test(finishOf(aside)?.words ?? ""));
  const putOn = (aside: AsideOf, after: string): string => {
    const { component } = aside;
    const items = resolve(aside.lines, shelf);
    const apart = placeOf(component) === "apart";
    const written = finishOf(aside);
    const words = written
      ? withAmounts(written.words, items)
      : apart
        ? `Serve with ${component.name.toLowerCase()}: ${listed(items)}`
        : `${makeWords(aside, shelf)}, and put it on`;
    const kind = apart ? "serve" : "glaze";
    return sheet.add(kind, words, takes(kind), items, { id: `glaze-${component.id}`, after: [after] });
  };
  for (const aside of hot) putOn(aside, out);
  let last = out;
  const tin = simulation?.outOfTinMinutes ?? 0;
  const hung = process.cooling === "upside-down" ? ", upside down on a bottle's neck or its own feet" : "";
  if (tin > 0) last = sheet.add("cool-tin", `Cool in the ${vessel.shape === "muffin" ? "cups" : "tin"}${hung}`, exactly(tin), [], { after: [last], hot: true }); // prettier-ignore
  const until = analysis.bake.restBeforeCuttingMinutes - tin;
  if (until >= LEAST_RACK_MIN) last = sheet.add("cool-rack", "Cool on the rack", exactly(until), [], { after: [last] });
  for (const aside of beside.late) if (!hot.includes(aside)) last = putOn(aside, last);
  const said = plan?.after.filter((step) => !beside.late.some((aside) => takenBy([step], aside))) ?? [];
  said.forEach((step, k) => {
    const kind = step.kind === "serve" ? "serve" : "glaze";
    const items = takenFrom(step, loose, shelf);
    last = sheet.add(kind, withAmounts(step.words, items), takes(kind), items, { id: `after-${k + 1}`, after: [last] });
  });
  const sliced = simulation === null || analysis.bake.restBeforeCuttingMinutes >= simulation.cutAfterMinutes;
  const cut = said.some(({ kind, words }) => kind === "serve" && /\b(?:cut|slice)\b/i.test(words));
  if (sliced && analysis.fill.pieces === 1 && !cut) last = sheet.add("cut", "Cut it", takes("cut"), [], { after: [last] });
  const through = wrapAfter(simulation, analysis.bake.targetCoreC, process.kitchenC ?? ROOM_C) - Math.max(tin, analysis.bake.restBeforeCuttingMinutes);
  if (through > 0) last = sheet.add("cool-through", "Let what is kept cool through", exactly(through), [], { after: [last] });
  sheet.add("wrap", "Wrap what is not eaten today", takes("wrap"), [], { after: [last] });
} // prettier-ignore

const GRIDDLE_HEATS: Range = { low: 4, mid: 6, high: 10 };

/** How it is filled or shaped: in the recipe's words where it says it, with the pieces and grams of the formula as it is now. */
function portionWords({ shape, piece }: Vessel, pieces: number, pieceG: number, inside: readonly string[], written: readonly WrittenStep[]): string {
  const each = gramsText(pieceG);
  const others = inside.length > 0 ? `, with ${listWords(inside)}` : "";
  const said = written.map(({ words }, k) => (k === 0 ? words : words.replace(/^\p{Lu}(?=\p{Ll})/u, (c) => c.toLowerCase()))).join("; ");
  if (said !== "") return `${said}: ${pieces === 1 ? each : `${pieces} of ${each}`}${others}`;
  if (shape === "muffin") return `Fill ${pieces} cups, ${each} each${others}`;
  if (shape === "griddle") return `Pour ${pieces} cakes of ${each}${others}`;
  if (shape === "free")
    return piece === "drop"
      ? `Drop ${pieces} heaps of ${each}${others}`
      : `Shape ${pieces} ${pieces === 1 ? "piece" : "pieces"} of ${each}${others}`;
  return pieces === 1 ? `Fill the tin: ${each}${others}` : `Fill ${pieces} tins, ${each} each${others}`;
} // prettier-ignore

/** A filling, topping or wash of its own, made before it is wanted; its id. */
function componentStep(sheet: Sheet, { component, lines }: AsideOf, shelf: Shelf): string {
  const items = resolve(lines, shelf);
  const cooked = component.cookedG === undefined ? "" : `, cooked down to ${gramsText(component.cookedG)} and cooled`;
  return sheet.add(
    "component",
    `${makeWords({ component, lines }, shelf)}${cooked}`,
    takes("component", component.cookedG === undefined ? 0.5 : 2),
    items,
    { id: `component-${component.id}`, ahead: true },
  );
}

/** The longest chain of steps, minutes from the first hand to the cut: what a baker alone with one oven cannot be quicker than. What is kept cools on by itself. */
export function shortestMinutes(steps: readonly WorkStep[]): number {
  const ends = new Map<string, number>();
  for (const { id, kind, after, minutes, at } of steps) {
    if (kind === "cool-through" || kind === "wrap") continue;
    // What goes on while it bakes adds nothing to the chain.
    if (at !== undefined) continue;
    const from = Math.max(0, ...after.map((one) => ends.get(one) ?? 0));
    ends.set(id, from + minutes.mid);
  }
  return Math.max(0, ...ends.values());
}
