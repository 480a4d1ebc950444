import { applyEdits } from "../formula/edits";
import type { Edit } from "../formula/edits-schema";
import { gramsOf } from "../formula/components";
import type { Formula, FormulaLine } from "../formula/formula";
import { methodName } from "../formula/process";
import { gramsText } from "../measure/amounts";
import { vesselOf } from "../pantry/vessel";
import type { Vessel } from "../pantry/vessel-schema";
import { seeded } from "../random";
import type { Factor, Settings } from "./season-schema";
import { toScale } from "./usual";

export interface Space {
  formula: Formula;
  factors: readonly Factor[];
}

const isShare = ({ kind }: Factor): boolean => kind === "share";
export const isNamed = ({ kind }: Factor): boolean => kind === "pan" || kind === "method";
const isWeighed = ({ kind }: Factor): boolean => kind === "amount" || kind === "share";
export const sharesOf = (factors: readonly Factor[]): Factor[] => factors.filter(isShare);
const lowOf = ({ low = 0 }: Factor): number => low;
const highOf = ({ high = 0 }: Factor): number => high;
const nameOf = (option: NonNullable<Factor["options"]>[number]): string => (typeof option === "string" ? option : option.name);
export const optionsOf = ({ options = [] }: Factor): string[] => options.map(nameOf);
/** A factor as it is called. */
export const factorName = ({ name, kind, ingredientId }: Factor): string =>
  name ?? { amount: ingredientId ?? "", share: ingredientId ?? "", oven: "Oven", minutes: "Minutes in the oven", rest: "Rest", pan: "Pan", method: "Method" }[kind]; // prettier-ignore
/** A value of a factor that is a number. */
export const numberAt = (settings: Settings, { id }: Pick<Factor, "id">): number => {
  const value = settings[id];
  return typeof value === "number" ? value : 0;
};

/** The line that a factor moves: the one that is named, else the first of that ingredient, those of the batter before others. */
export function lineOf(formula: Formula, { lineId, ingredientId }: Factor): FormulaLine | undefined {
  const named = formula.lines.find(({ id }) => id === lineId);
  if (named && gramsOf(named) > 0) return named;
  const fits = formula.lines.filter((line) => line.ingredientId === ingredientId && gramsOf(line) > 0);
  return fits.find(({ component }) => component === undefined) ?? fits[0];
}

const gramsIn = (formula: Formula, factor: Factor): number => gramsOf(lineOf(formula, factor) ?? {});
/** What the lines of the blend weigh together, g. */
const blendG = ({ formula, factors }: Space): number =>
  sharesOf(factors).reduce((sum, factor) => sum + gramsIn(formula, factor), 0);

const MEASURES = ["shape", "lengthMm", "widthMm", "heightMm", "diameterMm", "pieces", "material"] as const;
const panKey = (vessel: Vessel | undefined): string => JSON.stringify(MEASURES.map((key) => vessel?.[key] ?? null));
/** The pan that an option of a factor means; none for a name that is not in the library. */
export const panOf = (factor: Factor, name: string): Vessel | undefined => {
  const option = factor.options?.find((one) => nameOf(one) === name);
  return typeof option === "object" ? option.vessel : vesselOf(name)?.vessel;
};

/** Where a formula stands in the space of what may move. Minutes in the oven are no part of a formula and come with it. */
export function settingsFrom(space: Space, formula: Formula, minutes?: number): Settings {
  const { factors } = space;
  const moved = (factor: Factor): number => gramsOf(formula.lines.find(({ id }) => id === lineOf(space.formula, factor)?.id) ?? lineOf(formula, factor) ?? {});
  const whole = sharesOf(factors).reduce((sum, factor) => sum + moved(factor), 0);
  const value = (factor: Factor): number | string => {
    switch (factor.kind) {
      case "amount":
        return moved(factor);
      case "share":
        return whole > 0 ? (100 * moved(factor)) / whole : 0;
      case "oven":
        return formula.oven.celsius;
      case "rest":
        return formula.process.restMinutes ?? 0;
      case "minutes":
        return minutes ?? (lowOf(factor) + highOf(factor)) / 2;
      case "method":
        return formula.process.method ?? optionsOf(factor)[0] ?? "";
      case "pan":
        return optionsOf(factor).find((name) => panKey(panOf(factor, name)) === panKey(formula.vessel)) ?? optionsOf(factor)[0] ?? "";
    }
  };
  return Object.fromEntries(factors.map((factor) => [factor.id, value(factor)]));
} // prettier-ignore

/** The edits that bring the present bake to some settings, in amounts that a scale shows. */
export function editsTo(space: Space, settings: Settings): Edit[] {
  const { formula, factors } = space;
  const whole = blendG(space);
  const weigh = (factor: Factor, grams: number): Edit[] => {
    const line = lineOf(formula, factor);
    const to = toScale(grams);
    return !line || Math.abs(gramsOf(line) - to) < 0.05 ? [] : [{ edit: "set-amount", lineId: line.id, grams: { low: to, mid: to, high: to }, unit: "g" }];
  };
  return factors.flatMap((factor): Edit[] => {
    const value = settings[factor.id];
    if (value === undefined) return [];
    if (typeof value === "string") {
      const vessel = factor.kind === "pan" ? panOf(factor, value) : undefined;
      if (vessel && panKey(vessel) !== panKey(formula.vessel)) return [{ edit: "set-vessel", set: vessel, whole: true }];
      const method = factor.kind === "method" ? (Object.keys(methodName) as (keyof typeof methodName)[]).find((one) => one === value) : undefined;
      return method && method !== formula.process.method ? [{ edit: "set-process", set: { method } }] : [];
    }
    if (factor.kind === "amount") return weigh(factor, value);
    if (factor.kind === "share") return weigh(factor, (whole * value) / 100);
    if (factor.kind === "oven" && Math.round(value) !== Math.round(formula.oven.celsius)) return [{ edit: "set-oven", set: { celsius: Math.round(value) } }];
    if (factor.kind === "rest" && Math.round(value) !== Math.round(formula.process.restMinutes ?? 0)) return [{ edit: "set-process", set: { restMinutes: Math.round(value) } }];
    return [];
  });
} // prettier-ignore

/** The formula at some settings. */
export const formulaAt = (space: Space, settings: Settings): Formula => applyEdits(space.formula, editsTo(space, settings));

/** A value of a factor as it is said. */
export function valueText(factor: Factor, value: number | string): string {
  if (typeof value === "string") return factor.kind === "method" ? (methodName[value as keyof typeof methodName] ?? value) : (vesselOf(value)?.name ?? value); // prettier-ignore
  if (factor.kind === "amount") return gramsText(toScale(value));
  if (factor.kind === "share") return `${Math.round(value)} % of the blend`;
  return `${Math.round(value)} ${factor.kind === "oven" ? "°C" : "min"}`;
}

/** What differs from one bake to another, factor by factor, in words. */
export const changesBetween = (factors: readonly Factor[], from: Settings, to: Settings): string[] =>
  factors.flatMap((factor) => {
    const [before, after] = [valueText(factor, from[factor.id] ?? 0), valueText(factor, to[factor.id] ?? 0)];
    return before === after ? [] : [`${factorName(factor)}: ${after} in place of ${before}`];
  });

/** How far other things may lie apart, as a share and in g, before a bake is another recipe: what spoons and rounding do. */
const SAME_WITHIN = 0.04;
const SAME_G = 0.3;
/** Further outside of its range than this, in halves of it, a bake tells nothing of the inside. */
const FAR = 2;

/**
 * The settings at which a bake of the log was made, if it is one of this season: nothing but what may move differs from the present bake, in whatever size
 * of batch. Null for another recipe, and for what was baked far outside of the ranges.
 */
export function settingsOfBake(space: Space, baked: Formula, minutes: number | undefined): Settings | null {
  const { formula, factors } = space;
  if (baked.kind !== formula.kind) return null;
  const moving = new Set(factors.filter(isWeighed).flatMap((factor) => lineOf(formula, factor) ?? []).map(({ ingredientId, component }) => `${component ?? ""}/${ingredientId}`));
  const amounts = ({ lines }: Formula): Map<string, number> => {
    const out = new Map<string, number>();
    for (const line of lines) {
      const key = `${line.component ?? ""}/${line.ingredientId}`;
      if (line.ingredientId !== undefined && gramsOf(line) > 0 && !moving.has(key)) out.set(key, (out.get(key) ?? 0) + gramsOf(line));
    }
    return out;
  };
  const [was, is] = [amounts(formula), amounts(baked)];
  const total = (of: Map<string, number>): number => [...of.values()].reduce((sum, grams) => sum + grams, 0);
  const size = total(is) / Math.max(1e-9, total(was));
  if (!(size > 0)) return null;
  for (const key of new Set([...was.keys(), ...is.keys()])) {
    const [a, b] = [(was.get(key) ?? 0) * size, is.get(key) ?? 0];
    if (Math.abs(a - b) > SAME_WITHIN * Math.max(a, b) + SAME_G) return null;
  }
  const sized: Formula = { ...baked, lines: baked.lines.map((line) => (line.grams ? { ...line, grams: { low: gramsOf(line) / size, mid: gramsOf(line) / size, high: gramsOf(line) / size } } : line)) };
  const settings = settingsFrom(space, sized, minutes);
  const meant = applyEdits(formula, editsTo({ formula, factors: factors.filter((factor) => !isWeighed(factor)) }, settings));
  // Twice the batter in two tins is the same bake; what a tin is stays.
  const pan = ({ vessel }: Formula): string => JSON.stringify([vessel.shape, vessel.lengthMm ?? null, vessel.widthMm ?? null, vessel.diameterMm ?? null]);
  if (pan(meant) !== pan(baked) || (meant.process.method ?? "") !== (baked.process.method ?? "")) return null;
  if (Math.abs(meant.oven.celsius - baked.oven.celsius) > 2 || (meant.oven.mode ?? "still") !== (baked.oven.mode ?? "still")) return null;
  if (Math.abs((meant.process.restMinutes ?? 0) - (baked.process.restMinutes ?? 0)) > 5) return null;
  const far = factors.some((factor) => !isNamed(factor) && Math.abs(coded(factor, numberAt(settings, factor))) > FAR);
  return far ? null : settings;
} // prettier-ignore

/** −1 at the low end, 1 at the high end. */
const coded = (factor: Factor, value: number): number =>
  (2 * value - lowOf(factor) - highOf(factor)) / (highOf(factor) - lowOf(factor));

/** Coordinates of a bake for the model: numbers from −1 to 1 between the ends of each range, each pan or method but the first by a mark of its own. */
export const coordinates = (factors: readonly Factor[], settings: Settings): number[] =>
  factors.flatMap((factor) =>
    isNamed(factor)
      ? optionsOf(factor).slice(1).map((name) => (settings[factor.id] === name ? 1 : -1))
      : [coded(factor, numberAt(settings, factor))],
  ); // prettier-ignore

/** Corners of what shares may be when each keeps its range and all add up to 100: all but one at an end, the last one what is left. Source: the extreme vertices of R. A. McLean and V. L. Anderson, Technometrics 8, 1966. */
function corners(shares: readonly Factor[]): number[][] {
  const out: number[][] = [];
  shares.forEach((free, at) => {
    const others = shares.filter((_, k) => k !== at);
    for (let bits = 0; bits < 2 ** others.length; bits++) {
      const values = others.map((factor, k) => ((bits >> k) & 1 ? highOf(factor) : lowOf(factor)));
      const rest = 100 - values.reduce((a, b) => a + b, 0);
      if (rest < lowOf(free) - 1e-6 || rest > highOf(free) + 1e-6) continue;
      out.push([...values.slice(0, at), rest, ...values.slice(at)]);
    }
  });
  return unique(out);
}
const unique = (rows: number[][]): number[][] => [
  ...new Map(rows.map((row) => [row.map((one) => one.toFixed(4)).join(","), row])).values(),
];

/** Points of a blend: its corners, their middle, and what lies halfway between each two and between each and the middle. */
function blends(shares: readonly Factor[]): number[][] {
  const ends = corners(shares);
  if (ends.length === 0) return [];
  const middle = shares.map((_, k) => ends.reduce((sum, row) => sum + (row[k] ?? 0), 0) / ends.length);
  const half = (a: readonly number[], b: readonly number[]): number[] => a.map((one, k) => (one + (b[k] ?? 0)) / 2);
  const between = ends.flatMap((a, i) => ends.slice(i + 1).map((b) => half(a, b)));
  return unique([...ends, middle, ...between, ...ends.map((end) => half(end, middle))]);
}

const levels = (factor: Factor, n: number): number[] => Array.from({ length: n }, (_, k) => lowOf(factor) + ((highOf(factor) - lowOf(factor)) * k) / (n - 1)); // prettier-ignore

/** Steps along a range: more where few things move. */
const FEW = 2;
const [STEPS_OF_FEW, STEPS] = [5, 3];

/**
 * Bakes that may be made: the grid of the ends and what lies between, with the corners of a blend, all of it or a drawn part of at most `most`; the present
 * bake is the first. Only that one where the shares of a blend cannot add up to 100.
 */
export function candidatesOf(space: Space, most: number, seed: number): Settings[] {
  const { factors } = space;
  const shares = sharesOf(factors);
  const others = factors.filter((factor) => !isShare(factor));
  const steps = others.length <= FEW ? STEPS_OF_FEW : STEPS;
  let points: Settings[] = shares.length > 0 ? blends(shares).map((row) => Object.fromEntries(shares.map(({ id }, k) => [id, row[k] ?? 0]))) : [{}];
  for (const factor of others) {
    const values = isNamed(factor) ? optionsOf(factor) : levels(factor, steps);
    points = points.flatMap((point) => values.map((value) => ({ ...point, [factor.id]: value })));
    if (points.length > 20 * most) points = drawn(points, 8 * most, seed);
  }
  return [settingsFrom(space, space.formula), ...drawn(points, most - 1, seed)];
} // prettier-ignore

/** Some of many, drawn without looking. */
function drawn<T>(all: readonly T[], most: number, seed: number): T[] {
  if (all.length <= most) return [...all];
  const random = seeded(seed);
  const rest = [...all];
  for (let k = 0; k < most; k++) {
    const other = k + Math.floor(random() * (rest.length - k));
    [rest[k], rest[other]] = [rest[other] as T, rest[k] as T];
  }
  return rest.slice(0, most);
}
