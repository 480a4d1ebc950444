import { z } from "zod";
import { bakeOf, pouredFill } from "../bake/bake";
import { type Bake, type BakedFill, bakeSchema, fillSchema } from "../bake/bake-schema";
import { raceOf } from "../bake/race";
import { type Race, raceSchema } from "../bake/race-schema";
import { massSpreadOf, pouredDensity, ROOM_C, startOf } from "../bake/ready";
import { simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import { depthAtStart, type Start } from "../bake/start";
import type { AnalyseInput } from "../formula/open";
import { componentMasses, weighedAsides, type Weighed } from "../formula/component-mass";
import { componentMassSchema, type ComponentMass } from "../formula/component-mass-schema";
import { type InputLine, sortLines } from "../formula/components";
import { type OpenLine, openLineSchema } from "../formula/components-schema";
import { bandNames, bandReadings, type KindProfile, profileOf, typicalLines } from "./bands";
import { asDropped, defaultsOf } from "./defaults";
import type { Situation } from "./remedies";
import { type Again, type Changed, fixOf, type Prove, unproven } from "./ways";
import { type Said, saidSchema } from "../formula/formula";
import { type Finding, findingSchema } from "./finding-schema";
import { byGravity, findingsOf } from "./findings";
import { type BakedBy, recipeFindings } from "./findings-recipe";
import { bodyOf, bodySchema } from "../body/body";
import { CoreError } from "../errors";
import { kindSchema } from "../formula/kinds-schema";
import type { Kind } from "../formula/kinds";
import { type Process, processSchema } from "../formula/process-schema";
import { batchOf, type Item, massOf, resolve } from "../formula/resolve";
import { batchSchema } from "../formula/resolve-schema";
import { HANDLING_S } from "../lift/gas";
import { liftOf, liftSchema } from "../lift/lift";
import type { Measures } from "../measure/units";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { withStart } from "../pantry/vessel";
import { type Oven, ovenSchema, vesselSchema } from "../pantry/vessel-schema";

export const analysisSchema = z.object({
  /** What was analysed, with the defaults that were filled in. */
  given: z.object({ kind: kindSchema, vessel: vesselSchema, oven: ovenSchema, process: processSchema }),
  /** The batter, with its soakers: what lift, body, bands, fill and percentages are of. */
  batch: batchSchema,
  /** Every component, the batter first. */
  components: z.array(componentMassSchema),
  /** Lines that are not answered; nothing of them is in any number. */
  open: z.array(openLineSchema),
  /** Whether nothing is open that could change a verdict. */
  final: z.boolean(),
  /** What the recipe itself says of its bake: minutes, °C, core °C, pieces. */
  recipe: saidSchema.pick({ minutes: true, celsius: true, coreC: true, pieces: true }).optional(),
  lift: liftSchema,
  body: bodySchema,
  fill: fillSchema,
  /** Of the bake in the computer; null where there is none, and `unbaked` says why where it cannot be baked. */
  bake: bakeSchema.nullable(),
  race: raceSchema.nullable(),
  unbaked: z.string().optional(),
  /** The bands of the kind with where this formula stands; percentages on flour and starch, gas in mL per 100 g. */
  bands: z.array(z.object({ name: z.enum(bandNames), low: z.number(), high: z.number(), value: z.number() })),
  findings: z.array(findingSchema),
});
export type Analysis = z.infer<typeof analysisSchema>;
/** What a list shows of a formula: its four instruments and what is found. */
export const glanceSchema = analysisSchema.pick({
  given: true,
  open: true,
  final: true,
  recipe: true,
  lift: true,
  body: true,
  fill: true,
  bake: true,
  findings: true,
});
export type Glance = z.infer<typeof glanceSchema>;

/** The same with its bake. */
export type BakedAnalysis = Analysis & { fill: BakedFill; bake: Bake; race: Race };

/** What a formula weighs, lifts and drinks, before any pan: the parts that all readings stand on. */
interface Gathered {
  given: Analysis["given"];
  /** Nobody named a pan: it is the usual one of its kind. */
  isPanAssumed: boolean;
  items: Item[];
  asides: Weighed[];
  components: ComponentMass[];
  open: OpenLine[];
  said: AnalyseInput["said"];
  lift: ReturnType<typeof liftOf>;
  body: Analysis["body"];
  targets: KindProfile;
  measures: Measures;
}

/** Nobody named a pan: none is asked with, or it is still the one that was put where a text names none. */
const isAssumed = ({ vessel, said }: AnalyseInput): boolean =>
  vessel === undefined || (said?.panNamed === false && JSON.stringify(said.vessel) === JSON.stringify(vessel));

/** What weighs less than any scale shows is nothing, g. */
const LEAST_G = 0.05;

/** Throws `no-batch`, `empty-formula`, `unknown-ingredient`, `bad-amount`. */
function gather(input: AnalyseInput, shelf: Shelf): Gathered {
  const kind = input.kind ?? "loaf";
  const defaults = defaultsOf(kind);
  const vessel = asDropped(kind, withStart(input.vessel ?? defaults.vessel));
  const oven: Oven = { ...defaults.oven, ...input.oven };
  const process: Process = { ...defaults.process, ...input.process };
  const sorted = sortLines(linesOf(input, kind), input.components, shelf);
  const items = resolve(sorted.batter, shelf);
  if (massOf(items) < LEAST_G) {
    const what = sorted.asides.some(({ lines }) => lines.length > 0) ? "Its batter" : "The formula";
    const open = sorted.open.length > 0 ? ` Not weighed yet: ${sorted.open.map(({ name }) => name).join(", ")}.` : "";
    throw new CoreError("empty-formula", `${what} weighs 0 g; at least one line with an amount would be right.${open}`, "lines");
  }
  const asides = weighedAsides(sorted.asides, shelf);
  const profile = profileOf(kind);
  return {
    given: { kind, vessel, oven, process },
    isPanAssumed: isAssumed(input),
    items,
    asides,
    components: componentMasses(sorted.batter, asides, input.components ?? [], shelf),
    open: sorted.open,
    said: input.said,
    lift: liftOf(items, process),
    body: bodyOf(items, process, (profile.binderPercent.low + profile.binderPercent.high) / 2),
    targets: profile,
    measures: input.measures ?? "us",
  };
}

const recipeOf = ({ minutes, celsius, coreC, pieces }: Said): NonNullable<Analysis["recipe"]> => ({
  ...(minutes ? { minutes } : {}),
  ...(celsius === undefined ? {} : { celsius }),
  ...(coreC === undefined ? {} : { coreC }),
  ...(pieces === undefined ? {} : { pieces }),
});

/** A formula with something changed in thought, gathered again. */
function changed(weighed: Gathered, { items = weighed.items, ...set }: Changed): Gathered {
  const given = { ...weighed.given, ...set } as Gathered["given"];
  const wanted = weighed.targets.binderPercent;
  return {
    ...weighed,
    given,
    isPanAssumed: weighed.isPanAssumed && set.vessel === undefined,
    items: [...items],
    lift: liftOf(items, given.process),
    body: bodyOf(items, given.process, (wanted.low + wanted.high) / 2),
  };
}

/** What is found of a formula with a change in it, by itself or with the oven. Each change is judged once. */
function againOf(weighed: Gathered, oven: boolean): Again {
  const known = new Map<string, readonly Finding[]>();
  return (change) => {
    const key = JSON.stringify([
      change.items?.map(({ ingredient, massG }) => [ingredient.id, massG]),
      change.process,
      change.oven,
      change.vessel,
    ]);
    const before = known.get(key);
    if (before) return before;
    const next = changed(weighed, change);
    const found = (oven ? bakedCoarsely(next) : judge(next)).findings;
    known.set(key, found);
    return found;
  };
}

/** Ways out of what is found, proven with the oven where the bake shows it. */
function proving(weighed: Gathered, baked: boolean): Prove {
  const alone = againOf(weighed, false);
  const inOven = baked ? againOf(weighed, true) : alone;
  return (id, ways, oven) => {
    const again = oven ? inOven : alone;
    return fixOf(id, ways(again), again);
  };
}

const startIn = ({ given: { vessel, oven, process }, items, asides, lift, body, targets }: Gathered): Start =>
  startOf(items, vessel, oven, process, body, lift.gas, lift.lift.ph.mid, targets, asides);

/** A bake that only has to tell what is wrong with it. */
function bakedCoarsely(weighed: Gathered): Analysis {
  const start = startIn(weighed);
  return unbakeable(start) ? judge(weighed) : judge(weighed, simulateStart(start, 0, { frames: 0, spread: 0, fidelity: "coarse" }));
}

/** A batter under thought: what is found of it, and all that ways out are looked for in. */
export interface Thought extends Situation {
  findings: readonly Finding[];
}

/** An input whose batter can be changed in thought: what is found of any other batter in its place. Throws as `readings`. */
export function thinking(
  input: AnalyseInput,
  shelf: Shelf = builtInShelf,
): { items: Item[]; of: (items: readonly Item[]) => Thought } {
  const weighed = gather(input, shelf);
  return {
    items: weighed.items,
    of: (items): Thought => {
      const next = changed(weighed, { items });
      const { given, lift, body, measures } = next;
      const again = againOf(next, false);
      return {
        items,
        kind: given.kind,
        process: given.process,
        measures,
        lift,
        body,
        again,
        findings: again({}) as readonly Finding[],
      };
    },
  };
}

function judge(weighed: Gathered, simulation: Simulation, prove?: Prove): BakedAnalysis;
function judge(weighed: Gathered, simulation?: Simulation, prove?: Prove): Analysis;
function judge(weighed: Gathered, simulation?: Simulation, prove: Prove = unproven): Analysis {
  const { given, items, asides, components, open, said, lift, body, measures, targets } = weighed;
  const { kind, vessel, oven, process } = given;
  const density = pouredDensity(items, oven, process, body, lift.gas);
  const poured = pouredFill(vessel, massOf(items), density);
  const bench = {
    benchSeconds: HANDLING_S + (process.restMinutes ?? 0) * 60,
    benchC: process.batterC ?? process.kitchenC ?? ROOM_C,
  };
  const { fill, bake } = simulation ? bakeOf(poured, targets, simulation) : { fill: poured, bake: null };
  return {
    given,
    batch: batchOf(items),
    components,
    open,
    final: open.every(({ matters }) => !matters),
    ...(said ? { recipe: recipeOf(said) } : {}),
    lift: lift.lift,
    body,
    fill,
    bake,
    race: simulation ? raceOf(simulation, lift.gas, bench) : null,
    bands: bandsOf(items, kind, lift.lift.gasMlPer100g.mid),
    findings: findingsOf({
      items,
      asides,
      open,
      kind,
      measures,
      vessel,
      isPanAssumed: weighed.isPanAssumed,
      oven,
      process,
      lift,
      body,
      fill,
      simulation,
      prove,
    }),
  };
}

/**
 * The readings of a formula without the oven: fast enough for every keystroke. Masses in g, amounts in mmol per batch, lengths in mm, times in
 * minutes, temperatures in °C. With `ways` what would mend a finding is looked for too.
 * Throws `no-batch` without lines and batch, `empty-formula` when nothing weighs anything, `unknown-ingredient`, `bad-amount`, `bad-vessel`.
 */
export function readings(input: AnalyseInput, shelf: Shelf = builtInShelf, ways = false): Analysis {
  const weighed = gather(input, shelf);
  return judge(weighed, undefined, ways ? proving(weighed, false) : unproven);
}

/** Less dry matter than this share of a batter is a soup: nothing sets, and nothing can be simulated. */
const LEAST_DRY = 0.08;
/** With less water than this share there is nothing that wets, boils or sets: oil, sugar or meal by itself. */
const LEAST_WATER = 0.01;
/** Thinner than this over its pan it is a film that boils off at once, mm. */
const LEAST_DEPTH_MM = 0.3;

/** Why a start cannot be baked in the computer; null when it can. */
function unbakeable(start: Start): string | null {
  if (start.material.dry < LEAST_DRY)
    return `${Math.round(100 * start.material.water)} % of this is water, which cannot be baked; a batter has at most ${Math.round(100 * (1 - LEAST_DRY))} %.`;
  if (start.material.water < LEAST_WATER)
    return `Only ${(100 * start.material.water).toFixed(1)} % of this is water; from ${Math.round(100 * LEAST_WATER)} % on there is a batter to bake. Is the liquid missing?`;
  const depthMm = 1000 * depthAtStart(start);
  return depthMm < LEAST_DEPTH_MM
    ? `Over this pan it is a film of ${depthMm.toFixed(2)} mm; from ${LEAST_DEPTH_MM} mm on there is something to bake. Is an amount missing?`
    : null;
}

/** How much is said of a bake: what is wrong with it; that and where the recipe says otherwise; and what would mend it, each baked again. */
export type Depth = "plain" | "findings" | "ways";

/** A formula ready to be baked: what is simulated, and how its simulation becomes readings. */
export interface Ready {
  start: Start;
  massSpread: number;
  conclude: (simulation: Simulation, depth?: Depth) => BakedAnalysis;
}

/** Throws as `readings` does, and `not-a-batter`. */
export function ready(input: AnalyseInput, shelf: Shelf = builtInShelf): Ready {
  const weighed = gather(input, shelf);
  const start = startIn(weighed);
  const why = unbakeable(start);
  if (why) throw new CoreError("not-a-batter", why, "lines");
  return {
    start,
    massSpread: massSpreadOf(weighed.items),
    conclude: (simulation, depth = "findings") => {
      const ways = depth === "ways";
      const judged = judge(weighed, simulation, ways ? proving(weighed, true) : unproven);
      // What is not weighed may be the whole difference.
      if (depth === "plain" || !judged.final) return judged;
      const { given, items, asides, lift, body, targets, said } = weighed;
      const by: BakedBy = {
        items,
        asides,
        ...given,
        body,
        gas: lift.gas,
        crumbPh: lift.lift.ph.mid,
        targets,
        fill: judged.fill,
        simulation,
      };
      return { ...judged, findings: byGravity([...judged.findings, ...recipeFindings(said, by, ways)]) };
    },
  };
}

function bandsOf(items: readonly Item[], kind: Kind, gas: number): Analysis["bands"] {
  const { bands } = profileOf(kind);
  const values = bandReadings(items, gas);
  return bandNames.map((name) => ({ name, ...bands[name], value: values[name] }));
}

function linesOf(input: AnalyseInput, kind: Kind): readonly InputLine[] {
  if (input.lines && input.lines.length > 0) return input.lines;
  if (input.batchG !== undefined) return typicalLines(kind, input.batchG);
  throw new CoreError("no-batch", "There is nothing to analyse: send text, lines, or a kind with batchG.", "lines");
}
