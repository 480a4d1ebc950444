import { beginKind } from "./begin";
import { CoreError } from "./errors";
import type { Formula } from "./formula/formula";
import { openFormula, type Opened } from "./formula/open";
import { bareKitchen } from "./formula/bare-kitchen";
import type { Kind } from "./formula/kinds";
import { builtInShelf } from "./pantry/catalogue";
import type { Shelf } from "./pantry/shelf";
import { scaled } from "./measure/range";
import { normalFrom, seeded } from "./random";
import { appearanceOf, type Appearance, beyond } from "./trial/appearance";
import { type Cause, type CauseFamily, causes } from "./trial/causes";
import { cluesOf, type KitchenFacts } from "./trial/clues";
import { isPossible } from "./trial/evidence";
import { deviated } from "./trial/deviation";
import type { Measured } from "./trial/measured-schema";
import { bakeOf, coreAtOut, type Outcome } from "./trial/outcome";
import { scales, seenFrom } from "./trial/scales";
import { symptoms, type SymptomId } from "./trial/symptoms";
import type { Seen } from "./trial/symptoms-schema";

/** A bake that never was: a sound formula, one thing that went wrong with it, and what came of it. */
export interface MadeUp {
  seed: number;
  formula: Formula;
  input: Opened;
  planned: Outcome;
  /** As it really went. */
  baked: Outcome;
  cause: Cause;
  seen: Seen[];
  /** All that could be measured, and what the kitchen could tell; a baker asks for it piece by piece. */
  measured: Measured;
  kitchen: KitchenFacts;
}

export const practiceKinds: readonly Kind[] = ["loaf", "muffin", "scone", "bar", "cornbread-sweet", "tray-bread", "bun"];
const MASS: Partial<Record<Kind, number>> = { loaf: 950, muffin: 860, bar: 900, "tray-bread": 1340 };

/** How much of what could be seen a taster misses, and how often something is there by itself. */
const MISSES = 0.12;
/** What the table says beside the simulation comes out in so many of the cases. */
const BESIDE = 0.6;
const NOISE = { degree: 0.35, massG: 0.004, heightMm: 0.04, coreK: 1, ph: 0.15, severity: 0.2 };

/** A bake with which nothing was wrong. */
const NOTHING: Cause = { id: "nothing", family: "core", words: "Nothing was wrong", prior: 0, does: {}, clues: [], tell: "What was measured lies where it was expected; one faint sign is there in many a sound bake.", source: "", confidence: "" }; // prettier-ignore
/** How many of the formulas have pieces in them, and pulse flours. */
const WITH_PIECES = 0.3;
const WITH_PULSES = 0.15;

/** The formula of a made-up bake: typical of its kind, some with fruit or with a pulse flour, always where the cause is of these. */
function formulaOf(kind: Kind, { needs }: Cause, random: () => number, shelf: Shelf): Formula {
  const [fruit, pulses] = [random() < WITH_PIECES || needs === "pieces" || needs === "wetPieces", random() < WITH_PULSES || needs === "pulses"];
  const massG = MASS[kind] ?? 700;
  const formula = beginKind(kind, "metric", massG, pulses ? ["gf-blend-plain", "gf-blend-plain", "chickpea-flour"] : [], shelf);
  return fruit ? { ...formula, lines: [...formula.lines, { id: "fruit", ingredientId: "blueberries", grams: scaled({ low: 1, mid: 1, high: 1 }, Math.round(0.16 * massG)) }] } : formula;
} // prettier-ignore

/** The facts that only some causes leave behind: minutes that the batter stood, that it cooled, when it was cut. */
function traces(
  cause: Cause,
  planned: Outcome,
  severity: number,
  random: () => number,
): { measured: Measured; kitchen: KitchenFacts } {
  const { lift, bake } = planned.analysis;
  const between = (low: number, high: number): number => low + (high - low) * random();
  const quarter = lift.standMinutes.quarter ?? 60;
  const clean = bake.cleanCutMinutes ?? bake.restBeforeCuttingMinutes;
  const tin = bake.outOfTinMinutes ?? 10;
  const measured: Measured = {
    stoodMinutes: Math.round(
      cause.id === "stood-too-long" ? (cause.deviation?.by ?? 45) * severity : between(0, Math.min(6, 0.3 * quarter)),
    ),
    cutAfterMinutes: Math.round(cause.id === "cut-warm" ? clean * between(0.1, 0.4) : clean * between(1.1, 2)),
    inPanMinutes: Math.round(cause.id === "cooled-in-pan" ? tin + between(35, 90) : tin * between(0.7, 1.2)),
    doorSeconds: Math.round(cause.id === "door-opened" ? 60 * (cause.deviation?.by ?? 3) * severity : between(0, 15)),
    batterC: Math.round(cause.id === "cold-ingredients" ? (cause.deviation?.by ?? 8) : between(19, 23)),
  };
  const kitchen: KitchenFacts = {
    powderAgeMonths: Math.round(cause.id === "old-powder" ? between(8, 20) : between(0, 6)),
    weighedShare: cause.id.startsWith("cup-") ? 0 : random() < 0.6 ? 1 : 0,
    mixedLong: cause.id === "overmixed" ? random() < 0.7 : random() < 0.1,
  };
  return { measured, kitchen };
}

/** What the form asks for by its scales. */
const asked = new Set(seenFrom(Object.fromEntries(scales.map(({ id }) => [id, 0]))).map(({ symptomId }) => symptomId));

function seenOf(cause: Cause, appearance: Appearance, random: () => number, normal: () => number): Seen[] {
  const simulated = cause.deviation !== undefined;
  const out: Seen[] = [];
  for (const { id, leak } of symptoms) {
    let degree = appearance[id] ?? 0;
    const known = cause.does[id] ?? 0;
    // What the simulation cannot show (tunnels, lumps, a taste) comes as often as the trade knows it.
    if (degree < 0.5 && random() < (simulated ? BESIDE : 1) * known) degree = 1 + 1.6 * random();
    if (degree < 0.5 && random() < 0.3 * leak) degree = 1;
    if (degree >= 0.5 && random() < MISSES) degree = 0;
    const seen = degree < 0.5 ? 0 : Math.round(Math.min(3, Math.max(1, degree + NOISE.degree * normal())));
    // Whoever fills in the form looks at what it asks for; the rest is only written down where it is there.
    if (seen > 0 || asked.has(id)) out.push({ symptomId: id, degree: seen });
  }
  return out;
}

/**
 * A made-up bake from a seed: a typical formula, a hidden cause with a severity of its own, baked by the clock as if nothing were wrong, then
 * looked at by somebody who misses things. With `family` or `causeId` the cause is one of those, with `sound` nothing was wrong. Null where that cause can do nothing to it.
 */
export function madeUp(
  seed: number,
  { causeId, families, kind: wanted, shelf = builtInShelf, sound = false }: { sound?: boolean | undefined; causeId?: string | undefined; families?: readonly CauseFamily[] | undefined; kind?: Kind | undefined; shelf?: Shelf | undefined } = {},
): MadeUp | null {
  const random = seeded(seed);
  const normal = normalFrom(random);
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
  const kind = wanted ?? pick(practiceKinds) ?? "loaf";
  const cause = sound ? NOTHING : causeId !== undefined ? causes.find(({ id }) => id === causeId) : pick(families ? causes.filter(({ family }) => families.includes(family)) : causes); // prettier-ignore
  if (!cause) return null;
  const formula = formulaOf(kind, cause, random, shelf);
  const input = openFormula(formula, bareKitchen);
  try {
    const planned = bakeOf(input, shelf);
    const severity = Math.max(0.6, 1 + NOISE.severity * normal());
    if (!isPossible(cause, cluesOf(input, planned.analysis, shelf, {}), [input], shelf)) return null;
    const made = cause.deviation ? deviated(input, cause.deviation, shelf, planned.simulation.minutes, severity) : { input, minutes: 1 };
    if (!made) return null;
    const minutes = Math.round(planned.simulation.minutes * made.minutes);
    const baked = bakeOf(made.input, shelf, minutes, 12);
    const trace = traces(cause, planned, severity, random);
    const clues = cluesOf(made.input, baked.analysis, shelf, { measured: trace.measured });
    // A typical batter is sound: what could be found fault with in it is its style.
    const style = appearanceOf(planned, planned, shelf, cluesOf(input, planned.analysis, shelf, {}));
    const appearance = beyond(appearanceOf(baked, planned, shelf, clues), style);
    const { cooledMm, loss } = baked.simulation;
    const massInG = baked.analysis.batch.massG;
    const height = (share: number): number => Math.round((cooledMm.edge + share * (cooledMm.middle - cooledMm.edge)) * (1 + NOISE.heightMm * normal()));
    const measured: Measured = {
      ...trace.measured,
      massInG: Math.round(massInG),
      massOutG: Math.round(massInG * (1 - loss.oven / 100) * (1 + NOISE.massG * normal())),
      heightsMm: [height(0), height(0.7), height(1), height(0.7), height(0)],
      coreC: Math.round(coreAtOut(baked.simulation) + NOISE.coreK * normal()),
      minutes,
      crumbPh: Math.round(10 * (baked.analysis.lift.ph.mid + NOISE.ph * normal())) / 10,
      ovenC: Math.round((made.input.oven?.celsius ?? 180) + (made.input.oven?.biasK ?? 0) + 3 * normal()),
    };
    return { seed, formula, input, planned, baked, cause, seen: seenOf(cause, appearance, random, normal), measured, kitchen: trace.kitchen };
  } catch (error) {
    // A deviation may leave no batter at all: that bake was not made up.
    if (error instanceof CoreError) return null;
    throw error;
  }
} // prettier-ignore

export type { SymptomId };
