import { z } from "zod";
import { profileOf } from "../balance/bands";
import { allergensOf, proposalSchema, proposedLine, readingsOf } from "../balance/proposal";
import { type Analysis, readings } from "../balance/readings";
import { CoreError } from "../errors";
import { brownWord } from "../bake/browning";
import { isWeighed } from "../formula/components";
import { type Opened } from "../formula/open";
import { gramsOf } from "../formula/components";
import { processSchema } from "../formula/process-schema";
import { gramsText } from "../measure/amounts";
import { listWords } from "../measure/list-words";
import type { Shelf } from "../pantry/shelf";
import { ovenSchema, vesselSchema } from "../pantry/vessel-schema";
import type { Cause } from "./causes";
import { scaledPan } from "./deviation";
import { gramsIn, type GroupName, scaledGroup, withMore } from "./groups";
import { bakeOf, coreAtOut, type Outcome } from "./outcome";

/** A version ready to bake that changes one thing: other amounts, or another oven, process or pan. */
export const faultRemedySchema = proposalSchema.extend({
  set: z.object({ oven: ovenSchema.optional(), process: processSchema.optional(), vessel: vesselSchema.optional() }).optional(),
  /** The bake before and after, by the same simulation. */
  bake: z.object({ before: z.string(), after: z.string() }).optional(),
});
export type FaultRemedy = z.infer<typeof faultRemedySchema>;

/** Steps of a bisection, and how close is close. */
const HALVINGS = 22;
/** Where everything is inside its band the change is one that can be tasted: a fifth. */
const TASTED = 0.2;
const LIKED_FILL = 0.65;
const HEAT_STEP_K = 15;

interface Way {
  title: string;
  input: Opened;
}

/** The factor on a group between two ends at which a reading stands at what is wanted; the nearer end where it does not get there. */
function factorFor(
  input: Opened,
  group: GroupName,
  shelf: Shelf,
  [low, high]: [number, number],
  wanted: number,
  of: (analysis: Analysis) => number,
): number {
  const at = (factor: number): number => of(readings(scaledGroup(input, group, factor, shelf), shelf)) - wanted;
  let [a, b] = [low, high];
  const [fa, fb] = [at(a), at(b)];
  if (fa * fb > 0) return Math.abs(fa) < Math.abs(fb) ? a : b;
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (a + b) / 2;
    if (at(middle) * fa > 0) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

type BandName = Analysis["bands"][number]["name"];

const value = (analysis: Analysis, name: BandName): number => analysis.bands.find((band) => band.name === name)?.value ?? 0;

/** A group moved so that its band's value comes back inside; where it is inside already, by a fifth towards the wished side. */
function inBand(input: Opened, analysis: Analysis, group: GroupName, name: BandName, side: 1 | -1, shelf: Shelf): Opened | null {
  const band = analysis.bands.find((one) => one.name === name);
  if (!band || gramsIn(input, group, shelf) === 0) return null;
  const inside = band.low + (side > 0 ? 0.3 : 0.7) * (band.high - band.low);
  const isThere = side > 0 ? band.value >= inside : band.value <= inside;
  const factor = isThere ? 1 + side * TASTED : factorFor(input, group, shelf, [0.2, 3], inside, (then) => value(then, name));
  return scaledGroup(input, group, factor, shelf);
}

const groupWords: Record<GroupName, string> = {
  soda: "soda", powder: "powder", leavening: "leavening", acid: "acid", water: "liquid", binder: "binder", fat: "fat", sugar: "sugar", egg: "egg", flour: "flour", salt: "salt",
}; // prettier-ignore

function lines(aim: string, { input, analysis }: Outcome, shelf: Shelf): Way | null {
  const band = (group: GroupName, name: BandName, side: 1 | -1): Way | null => {
    const next = inBand(input, analysis, group, name, side, shelf);
    return next && { title: `${side > 0 ? "More" : "Less"} ${groupWords[group]}`, input: next };
  };
  switch (aim) {
    case "soda-met": {
      if (gramsIn(input, "soda", shelf) === 0) return null;
      const wanted = 0.0004 * analysis.batch.massG;
      const factor = analysis.lift.residualSodaG > wanted ? factorFor(input, "soda", shelf, [0, 1], wanted, ({ lift }) => lift.residualSodaG) : 1 - TASTED;
      return { title: "Less soda", input: scaledGroup(input, "soda", Math.max(0.1, factor), shelf) };
    }
    case "acid-in": {
      // 0.188 g of cream of tartar meet a mmol of soda.
      const short = Math.max(analysis.lift.sodaMmol.mid - analysis.lift.acidMmol.mid, 0.25 * analysis.lift.sodaMmol.mid);
      return short > 0.5 ? { title: "Cream of tartar for the acid that is missing", input: withMore(input, "cream-of-tartar", 0.188 * short) } : null;
    }
    case "acid-out": {
      if (gramsIn(input, "soda", shelf) > 0 && analysis.lift.neutralised.mid > 1) {
        const factor = factorFor(input, "soda", shelf, [1, 4], 1.05, ({ lift }) => lift.neutralised.mid);
        return { title: "Soda enough for the acid", input: scaledGroup(input, "soda", factor, shelf) };
      }
      const spare = Math.max(0.5, (analysis.lift.acidMmol.mid - analysis.lift.sodaMmol.mid) / 11.9);
      return { title: "Soda for the acid that is left", input: withMore(input, "soda", Math.min(spare, 0.012 * Math.max(1, analysis.batch.flourG))) };
    }
    case "gas-down":
      return band("leavening", "gasMlPer100g", -1);
    case "gas-up":
      return band("leavening", "gasMlPer100g", 1);
    case "powder-up":
      return gramsIn(input, "powder", shelf) > 0 ? { title: "Half as much again of the old powder, until there is a fresh one", input: scaledGroup(input, "powder", 1.5, shelf) } : null;
    case "water-down":
    case "water-up": {
      const side = aim === "water-up" ? 1 : -1;
      return gramsIn(input, "water", shelf) > 0 ? { title: side > 0 ? "More liquid" : "Less liquid", input: scaledGroup(input, "water", 1 + side * 0.1, shelf) } : null;
    }
    case "binder-up":
    case "binder-down": {
      if (gramsIn(input, "binder", shelf) === 0) {
        if (aim === "binder-down") return null;
        const { low, high } = profileOf(analysis.given.kind).binderPercent;
        const grams = (((low + high) / 2) * Math.max(analysis.batch.flourG, analysis.batch.baseG) * Math.max(0.3, 1 - analysis.body.binder.adequacy)) / 100;
        return { title: "Xanthan to bind it", input: withMore(input, "xanthan", Math.max(0.5, grams)) };
      }
      const up = aim === "binder-up";
      const off = up ? analysis.body.binder.adequacy < 0.95 : analysis.body.binder.adequacy > 1.1;
      const factor = off ? factorFor(input, "binder", shelf, [0.1, 6], 1, ({ body }) => body.binder.adequacy) : 1 + (up ? TASTED : -TASTED);
      return { title: up ? "More binder" : "Less binder", input: scaledGroup(input, "binder", factor, shelf) };
    }
    case "fat-down": return band("fat", "fatPercent", -1);
    case "fat-up": return band("fat", "fatPercent", 1);
    case "sugar-down": return band("sugar", "sugarPercent", -1);
    case "sugar-up": return band("sugar", "sugarPercent", 1);
    case "egg-down": return band("egg", "eggPercent", -1);
    case "egg-up": return band("egg", "eggPercent", 1);
    case "salt-up": {
      const grams = 0.015 * analysis.batch.flourG - gramsIn(input, "salt", shelf);
      return grams > 0.2 ? { title: "Salt to taste", input: withMore(input, "salt", grams) } : null;
    }
    default:
      return null;
  }
} // prettier-ignore

function setting(aim: string, { input, analysis }: Outcome): Way | null {
  const { oven, process, vessel } = analysis.given;
  switch (aim) {
    case "bake-at-once":
      return (process.restMinutes ?? 0) > 0 ? { title: "Bake it at once", input: { ...input, process: { ...process, restMinutes: 0 } } } : null;
    case "rest": {
      const allowed = analysis.lift.standMinutes.quarter ?? 60;
      const minutes = Math.min(30, Math.floor(allowed));
      return minutes >= 5 && (process.restMinutes ?? 0) < minutes ? { title: `Let it rest ${minutes} min`, input: { ...input, process: { ...process, restMinutes: minutes } } } : null;
    }
    case "temper":
      return (process.batterC ?? 22) < 18 ? { title: "Everything at room temperature", input: { ...input, process: { ...process, batterC: 22 } } } : null;
    case "cooler":
    case "hotter": {
      if (oven.mode === "hob") return null;
      const by = aim === "cooler" ? -HEAT_STEP_K : HEAT_STEP_K;
      return { title: `Set the dial ${Math.abs(by)} °C ${by < 0 ? "lower" : "higher"}`, input: { ...input, oven: { ...oven, celsius: oven.celsius + by } } };
    }
    case "middle-shelf": {
      if (oven.shelf === undefined || oven.shelf === "middle") return null;
      const { shelf: _, ...rest } = oven;
      return { title: "On the middle shelf", input: { ...input, oven: rest } };
    }
    case "smaller-pan": {
      const factor = Math.sqrt(analysis.fill.fillFraction / LIKED_FILL);
      return factor < 0.95 ? { title: "A smaller pan", input: { ...input, vessel: scaledPan(vessel, factor) } } : null;
    }
    case "less-batter": {
      const factor = LIKED_FILL / Math.max(LIKED_FILL, analysis.fill.fillFraction);
      if (factor > 0.97) return null;
      return { title: `Only ${gramsText(factor * analysis.batch.massG)} into this pan`, input: { ...input, lines: input.lines.map((line) => (gramsOf(line) > 0 ? { ...line, grams: gramsOf(line) * factor } : line)) } };
    }
    case "light-metal":
      return vessel.material !== "light-metal" && vessel.material !== undefined ? { title: "A pan of light metal", input: { ...input, vessel: { ...vessel, material: "light-metal" } } } : null;
    case "paper":
      return vessel.lining !== "paper" && vessel.shape !== "griddle" ? { title: "Line it with paper", input: { ...input, vessel: { ...vessel, lining: vessel.shape === "muffin" ? "paper-cups" : "paper" } } } : null;
    default:
      return null;
  }
} // prettier-ignore

/** What to do where no number of the formula changes, or beside it. */
const nextWords: Record<string, string> = {
  "checklist": "Weigh the leavening first next time and set the tub aside only then.",
  "powder-up": "Open a fresh tub, and write the day on it. Until then half as much again makes up for some of it.",
  "bake-at-once": "Have the oven hot and the pan ready before the wet meets the dry.",
  "sieve": "Sieve the leavening with the flour and whisk for half a minute.",
  "rest": "Let the flours drink before the leavening goes in.",
  "mix-less": "Stop stirring as soon as no dry flour is seen; only gas is lost after that.",
  "mix-more": "Whisk until it is smooth: there is no gluten to toughen.",
  "temper": "Take eggs and liquid out an hour before.",
  "weigh": "Weigh the flour.",
  "packets": "Have the packets stand in the order of the list.",
  "dry-pieces": "Drain the pieces, dust them with a spoonful of the flour, and fold them in last.",
  "chop": "Chop the pieces half as large and dust them.",
  "turn": "Turn it at two thirds of the time, when it has set.",
  "preheat": "Wait for the oven: by a thermometer, not by its lamp.",
  "door-shut": "Leave the door shut until two thirds of the time are over.",
  "cut-later": "Wait for a cool crumb before you cut it.",
  "out-of-pan": "Turn it out onto the rack as soon as it carries itself.",
  "longer": "Leave it in until the core is where it should be, whatever the clock says.",
  "shorter": "Take it out when the core is where it should be.",
  "toast": "Toast the pulse flour dry for ten minutes at 150 °C, and let it cool.",
}; // prettier-ignore

const bakeWords = ({ simulation }: Outcome): string =>
  `${Math.round(simulation.minutes)} min, ${Math.round(coreAtOut(simulation))} °C inside, top ${brownWord(simulation.browning.top)}, loss ${simulation.loss.oven.toFixed(1)} %, ${Math.round(simulation.cooledMm.middle)} mm tall`;

export const findingsOf = (analysis: Analysis): Set<string> =>
  new Set(analysis.findings.filter(({ severity }) => severity !== "note").map(({ id }) => id));

export function changesOf(before: Opened, after: Opened): FaultRemedy["changes"] {
  const sums = (input: Opened): Map<string, number> => {
    const out = new Map<string, number>();
    for (const line of input.lines.filter(isWeighed)) if (line.component === undefined) out.set(line.ingredientId, (out.get(line.ingredientId) ?? 0) + gramsOf(line));
    return out;
  };
  const [was, is] = [sums(before), sums(after)];
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((ingredientId) => {
    const [fromG, toG] = [was.get(ingredientId) ?? 0, is.get(ingredientId) ?? 0];
    return Math.abs(fromG - toG) > 0.005 ? [{ ingredientId, fromG, toG }] : [];
  });
} // prettier-ignore

/** Whole grams for a lot, tenths for a little: what a scale shows. */
export function forScale(input: Opened, before: Opened): Opened {
  const was = new Map(before.lines.filter(isWeighed).map((line) => [line.ingredientId, gramsOf(line)]));
  return {
    ...input,
    lines: input.lines.map((line) => {
      const grams = gramsOf(line);
      if (grams === 0 || was.get(line.ingredientId ?? "") === grams) return line;
      return { ...line, grams: grams >= 20 ? Math.round(grams) : Math.round(grams * 10) / 10 };
    }),
  };
}

/** What to do next time about a cause, without a number of this formula. */
export const doNext = ({ remedy, tell }: Cause): string => nextWords[remedy?.aim ?? ""] ?? tell;

/** What to do in words; where this formula has something to change, the version with it. */
export interface OfferedRemedy {
  words: string;
  remedy?: FaultRemedy;
  input?: Opened;
}

/**
 * What to change for a cause: in words, and as a version that is analysed and baked again. It is not offered where this formula has nothing to change, or
 * where the change would bring a fault that was not there.
 */
export function remedyFor(cause: Cause, input: Opened, planned: Outcome, shelf: Shelf): OfferedRemedy {
  const aim = cause.remedy?.aim ?? "";
  const way = lines(aim, planned, shelf) ?? setting(aim, planned);
  const words = doNext(cause);
  if (!way) return { words };
  try {
    const after = forScale(way.input, input);
    const changes = changesOf(input, after);
    const then = bakeOf(after, shelf);
    const { analysis } = then;
    const before = findingsOf(planned.analysis);
    if ([...findingsOf(analysis)].some((id) => !before.has(id))) return { words };
    const [was, is] = [allergensOf(input.lines, shelf), allergensOf(after.lines, shelf)];
    const name = (id: string): string => shelf.get(id)?.name.toLowerCase() ?? id;
    const listed = listWords(changes.map(({ ingredientId, fromG, toG }) => `${name(ingredientId)} ${gramsText(fromG)} → ${gramsText(toG)}`));
    const set = {
      ...(after.oven !== input.oven && after.oven ? { oven: after.oven } : {}),
      ...(after.process !== input.process && after.process ? { process: after.process } : {}),
      ...(after.vessel !== input.vessel && after.vessel ? { vessel: after.vessel } : {}),
    };
    if (changes.length === 0 && Object.keys(set).length === 0) return { words };
    return {
      words: nextWords[aim] ?? `${way.title}${listed === "" ? "" : `: ${listed}`}.`,
      input: after,
      remedy: {
        title: way.title,
        why: `Against: ${cause.words.toLowerCase()}. One thing is changed, everything else stays.`,
        changes,
        lines: after.lines.map(proposedLine),
        before: readingsOf(planned.analysis),
        after: readingsOf(analysis),
        allergensAdded: [...is].filter((one) => !was.has(one)),
        allergensRemoved: [...was].filter((one) => !is.has(one)),
        ...(Object.keys(set).length > 0 ? { set } : {}),
        bake: { before: bakeWords(planned), after: bakeWords(then) },
      },
    };
  } catch (error) {
    if (error instanceof CoreError) return { words };
    throw error;
  }
} // prettier-ignore
