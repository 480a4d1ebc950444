import { applyEdits } from "../formula/edits";
import type { Edit } from "../formula/edits-schema";
import { gramsOf } from "../formula/components";
import type { Formula } from "../formula/formula";
import { gramsText } from "../measure/amounts";
import { seeded } from "../random";
import type { Factor, Point } from "./season-schema";

type Numeric = Exclude<Factor, { what: "choice" }>;
type Share = Extract<Factor, { what: "share" }>;
type Space = { formula: Formula; factors: readonly Factor[] };

export const isShare = (factor: Factor): factor is Share => factor.what === "share";
const isChoice = (factor: Factor): factor is Extract<Factor, { what: "choice" }> => factor.what === "choice";

/** What the lines of the blend weigh together in the present bake, g. */
const blendG = ({ formula, factors }: Space): number =>
  factors.filter(isShare).reduce((sum, { lineId }) => sum + gramsOf(formula.lines.find(({ id }) => id === lineId) ?? {}), 0);

/** Whole grams for a lot, tenths for a little: what a scale shows. */
const toScale = (grams: number): number => (grams >= 20 ? Math.round(grams) : Math.round(10 * grams) / 10);

/** Where a formula stands in the space of what may move. Minutes in the oven are no part of a formula and come with it. */
export function pointFrom(space: Space, formula: Formula, minutes?: number): Point {
  const grams = (lineId: string): number => {
    const line = formula.lines.find(({ id }) => id === lineId) ?? formula.lines.find(({ ingredientId }) => ingredientId !== undefined && ingredientId === space.formula.lines.find(({ id }) => id === lineId)?.ingredientId);
    return line ? gramsOf(line) : 0;
  };
  const whole = space.factors.filter(isShare).reduce((sum, { lineId }) => sum + grams(lineId), 0);
  const out: Point = {};
  for (const factor of space.factors) {
    if (factor.what === "line") out[factor.id] = grams(factor.lineId);
    else if (factor.what === "share") out[factor.id] = whole > 0 ? (100 * grams(factor.lineId)) / whole : 0;
    else if (factor.what === "oven") out[factor.id] = formula.oven.celsius;
    else if (factor.what === "rest") out[factor.id] = formula.process.restMinutes ?? 0;
    else if (factor.what === "minutes") out[factor.id] = minutes ?? (factor.low + factor.high) / 2;
    else out[factor.id] = wayOf(factor, formula);
  }
  return out;
} // prettier-ignore

/** The way that a formula is made in: of those whose every edit it has, the one that asks for most. */
function wayOf({ options }: Extract<Factor, { what: "choice" }>, formula: Formula): number {
  const fits = options.map(({ edits }) => (edits.every((edit) => says(formula, edit)) ? edits.length : -1));
  return Math.max(0, fits.indexOf(Math.max(...fits)));
}

/** Whether a formula is already as an edit would make it. */
const says = (formula: Formula, edit: Edit): boolean => {
  const made = applyEdits(formula, [edit]);
  return JSON.stringify([made.vessel, made.oven, made.process, made.lines]) === JSON.stringify([formula.vessel, formula.oven, formula.process, formula.lines]); // prettier-ignore
};

/** The edits that bring the present bake to a point, in amounts that a scale shows. */
export function editsTo(space: Space, point: Point): Edit[] {
  const whole = blendG(space);
  const weigh = (lineId: string, grams: number): Edit[] => {
    const now = gramsOf(space.formula.lines.find(({ id }) => id === lineId) ?? {});
    const to = toScale(grams);
    return Math.abs(now - to) < 0.05 ? [] : [{ edit: "set-amount", lineId, grams: { low: to, mid: to, high: to }, unit: "g" }];
  };
  return space.factors.flatMap((factor): Edit[] => {
    const value = point[factor.id] ?? 0;
    switch (factor.what) {
      case "line":
        return weigh(factor.lineId, value);
      case "share":
        return weigh(factor.lineId, (whole * value) / 100);
      case "oven":
        return Math.round(value) === space.formula.oven.celsius ? [] : [{ edit: "set-oven", set: { celsius: Math.round(value) } }];
      case "rest":
        return Math.round(value) === (space.formula.process.restMinutes ?? 0)
          ? []
          : [{ edit: "set-process", set: { restMinutes: Math.round(value) } }];
      case "minutes":
        return [];
      case "choice":
        return factor.options[value]?.edits ?? [];
    }
  });
}

/** The formula at a point. */
export const formulaAt = (space: Space, point: Point): Formula => applyEdits(space.formula, editsTo(space, point));

/** What a factor is called at a value, with the present one where it differs. */
export function valueText(factor: Factor, value: number): string {
  switch (factor.what) {
    case "line":
      return gramsText(toScale(value));
    case "share":
      return `${Math.round(value)} % of the blend`;
    case "oven":
      return `${Math.round(value)} °C`;
    case "rest":
    case "minutes":
      return `${Math.round(value)} min`;
    case "choice":
      return factor.options[value]?.name ?? "";
  }
}

/** What differs at a point from another one, factor by factor, in words. */
export function changesBetween(factors: readonly Factor[], from: Point, to: Point): string[] {
  return factors.flatMap((factor) => {
    const [was, is] = [from[factor.id] ?? 0, to[factor.id] ?? 0];
    const [before, after] = [valueText(factor, was), valueText(factor, is)];
    return before === after ? [] : [`${factor.name}: ${after} in place of ${before}`];
  });
}

/** How far other things may lie apart, as a share, before a bake is another recipe: what spoons and rounding do. */
const SAME_WITHIN = 0.04;

/**
 * The point at which a bake of the log was made, if it is one of this season: nothing but what may move differs from the present bake, in whatever size
 * of batch. Null for another recipe, and for what was baked far outside of the ranges.
 */
export function pointOfBake(space: Space, baked: Formula, minutes: number | undefined): Point | null {
  const { formula, factors } = space;
  if (baked.kind !== formula.kind) return null;
  const moving = new Set(factors.flatMap((factor) => (factor.what === "line" || factor.what === "share" ? [factor.lineId] : [])));
  const amounts = ({ lines }: Formula): Map<string, number> => {
    const out = new Map<string, number>();
    for (const line of lines)
      if (line.ingredientId !== undefined && gramsOf(line) > 0) {
        const key = moving.has(line.id) ? `moves/${line.id}` : `${line.component ?? ""}/${line.ingredientId}`;
        out.set(key, (out.get(key) ?? 0) + gramsOf(line));
      }
    return out;
  };
  const [was, is] = [amounts(formula), amounts(baked)];
  const fixed = (of: Map<string, number>): [string, number][] => [...of].filter(([key]) => !key.startsWith("moves/"));
  const total = (of: [string, number][]): number => of.reduce((sum, [, grams]) => sum + grams, 0);
  const size = total(fixed(is)) / Math.max(1e-9, total(fixed(was)));
  if (!(size > 0)) return null;
  for (const key of new Set([...fixed(was), ...fixed(is)].map(([one]) => one))) {
    const [a, b] = [(was.get(key) ?? 0) * size, is.get(key) ?? 0];
    if (Math.abs(a - b) > SAME_WITHIN * Math.max(a, b) + 0.3) return null;
  }
  const sized: Formula = { ...baked, lines: baked.lines.map((line) => (line.grams ? { ...line, grams: { low: gramsOf(line) / size, mid: gramsOf(line) / size, high: gramsOf(line) / size } } : line)) }; // prettier-ignore
  const point = pointFrom(space, sized, minutes);
  const chosen = factors.filter(isChoice).flatMap(({ id, options }) => options[point[id] ?? 0]?.edits ?? []);
  const meant = applyEdits(formula, chosen);
  const movesOven = factors.some(({ what }) => what === "oven");
  const movesRest = factors.some(({ what }) => what === "rest");
  const pan = ({ vessel: { shape, lengthMm, widthMm, diameterMm, pieces } }: Formula): string => JSON.stringify([shape, lengthMm, widthMm, diameterMm, pieces]);
  if (pan(meant) !== pan(baked) || (meant.process.method ?? "") !== (baked.process.method ?? "")) return null;
  if (!movesOven && Math.abs(meant.oven.celsius - baked.oven.celsius) > 2) return null;
  if (!movesRest && Math.abs((meant.process.restMinutes ?? 0) - (baked.process.restMinutes ?? 0)) > 5) return null;
  const far = factors.some((factor) => !isChoice(factor) && Math.abs(coded(factor, point[factor.id] ?? 0)) > 2);
  return far ? null : point;
} // prettier-ignore

/** −1 at the low end, 1 at the high end. */
const coded = ({ low, high }: Numeric, value: number): number => (2 * value - low - high) / (high - low);

/** Coordinates of a point for the model: numbers from −1 to 1, shares as they stand between their ends, each way but the first by a mark of its own. */
export const coordinates = (factors: readonly Factor[], point: Point): number[] =>
  factors.flatMap((factor) =>
    isChoice(factor)
      ? factor.options.slice(1).map((_, k) => (point[factor.id] === k + 1 ? 1 : -1))
      : [coded(factor, point[factor.id] ?? 0)],
  );

const LATTICE = 4;

/** Corners of what shares may be when each keeps its range and all add up to 100: all but one at an end, the last one what is left. Source: the extreme vertices of McLean and Anderson. */
function corners(shares: readonly Share[]): number[][] {
  const out: number[][] = [];
  shares.forEach((free, at) => {
    const others = shares.filter((_, k) => k !== at);
    for (let bits = 0; bits < 2 ** others.length; bits++) {
      const values = others.map(({ low, high }, k) => ((bits >> k) & 1 ? high : low));
      const rest = 100 - values.reduce((a, b) => a + b, 0);
      if (rest < free.low - 1e-6 || rest > free.high + 1e-6) continue;
      out.push([...values.slice(0, at), rest, ...values.slice(at)]);
    }
  });
  return unique(out);
}
const unique = (rows: number[][]): number[][] => [
  ...new Map(rows.map((row) => [row.map((one) => one.toFixed(4)).join(","), row])).values(),
];

/** Points of a blend: its corners, their middle, and what lies halfway between each two and between each and the middle. */
function blends(shares: readonly Share[]): number[][] {
  const ends = corners(shares);
  if (ends.length === 0) return [];
  const middle = shares.map((_, k) => ends.reduce((sum, row) => sum + (row[k] ?? 0), 0) / Math.max(1, ends.length));
  const half = (a: readonly number[], b: readonly number[]): number[] => a.map((one, k) => (one + (b[k] ?? 0)) / 2);
  const between = ends.flatMap((a, i) => ends.slice(i + 1).map((b) => half(a, b)));
  return unique([...ends, middle, ...between, ...ends.map((end) => half(end, middle))]);
}

const levels = (low: number, high: number, n: number): number[] =>
  Array.from({ length: n }, (_, k) => low + ((high - low) * k) / (n - 1));

/**
 * Points that may be baked: the grid of the ends and what lies between, with the corners of a blend, all of it or a drawn part of at most `most`; the
 * present bake is the first. None where the shares of a blend cannot add up to 100.
 */
export function candidatesOf(space: Space, most: number, seed: number): Point[] {
  const { factors } = space;
  const present = pointFrom(space, space.formula);
  const shares = factors.filter(isShare);
  const others = factors.filter((factor) => !isShare(factor));
  const perFactor = others.length <= 1 ? LATTICE + 1 : others.length <= 2 ? LATTICE + 1 : 3;
  let points: Point[] = shares.length > 0 ? blends(shares).map((row) => Object.fromEntries(shares.map(({ id }, k) => [id, row[k] ?? 0]))) : [{}];
  for (const factor of others) {
    const values = isChoice(factor) ? factor.options.map((_, k) => k) : levels(factor.low, factor.high, perFactor);
    points = points.flatMap((point) => values.map((value) => ({ ...point, [factor.id]: value })));
    if (points.length > 20 * most) points = drawn(points, 8 * most, seed);
  }
  return [present, ...drawn(points, most - 1, seed)];
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
