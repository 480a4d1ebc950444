import { CoreError } from "../errors";
import { type Kitchen, openFormula } from "../formula/open";
import type { Formula } from "../formula/formula";
import { labelOf } from "../label/label";
import type { Packet } from "../pantry/packet-schema";
import { findingsOf } from "../trial/remedy";
import { bakeOf, type Outcome } from "../trial/outcome";
import { type Quality, qualityOf } from "./qualities";
import type { Factor, Point, Season } from "./season-schema";
import { coordinates, formulaAt, pointFrom } from "./space";

/** A point with its bake in the computer and what it says of each quality. */
export interface Baked {
  point: Point;
  x: number[];
  formula: Formula;
  outcome: Outcome;
  /** The computer's own number, or what is reckoned; null where it has none. */
  means: Map<string, number | null>;
  /** What a tasted quality leans on, not yet standardised. */
  leans: Map<string, number>;
}

/** What a season asks for: its wishes and what must hold, each once. */
export const askedQualities = ({ wishes, holds }: Pick<Season, "wishes" | "holds">): Quality[] =>
  [...new Set([...wishes, ...holds].map(({ quality }) => quality))].map(qualityOf);

/** Minutes for the oven at a point, where they are a factor. */
export const minutesAt = (factors: readonly Factor[], point: Point): number | undefined => {
  const factor = factors.find(({ what }) => what === "minutes");
  return factor && point[factor.id] !== undefined ? Math.round(point[factor.id] as number) : undefined;
};

/** Bakes points of a season in the computer, each once. */
export function baker(season: Season, kitchen: Kitchen, packets: readonly Packet[]) {
  const asked = askedQualities(season);
  const needsLabel = asked.some(({ id }) => id === "cost" || id === "keeps");
  const known = new Map<string, Baked>();

  /** A formula as it was or would be baked. Throws as `readings`. */
  function bake(point: Point, formula: Formula): Baked {
    const minutes = minutesAt(season.factors, point);
    const key = JSON.stringify([formula.lines.map(({ id, grams }) => [id, grams?.mid]), formula.oven, formula.vessel, formula.process, minutes]); // prettier-ignore
    const before = known.get(key);
    if (before) return before;
    const input = openFormula(formula, kitchen, season.formulaId);
    const outcome = bakeOf(input, kitchen.shelf, minutes);
    const label = needsLabel ? labelOf(input, outcome.analysis, formula.kind, "eu", packets, kitchen.shelf) : null;
    const means = new Map<string, number | null>();
    for (const { id, baked } of asked) {
      if (id === "cost") means.set(id, label?.cost && label.cost.unpriced.length === 0 ? label.cost.batch.mid : null);
      else if (id === "keeps") means.set(id, label?.keeping.counterDays?.mid ?? 0);
      else means.set(id, baked ? baked(outcome) : null);
    }
    const leans = new Map(asked.flatMap(({ id, leans: on }) => (on ? [[id, on(outcome)] as const] : [])));
    const made: Baked = { point, x: coordinates(season.factors, point), formula, outcome, means, leans };
    known.set(key, made);
    return made;
  }
  return {
    bake,
    at: (point: Point): Baked => bake(point, formulaAt(season, point)),
  };
}
export type Baker = ReturnType<typeof baker>;

export interface Sifted {
  sound: Baked[];
  unsound: { why: string; count: number }[];
  present: Baked;
}

/** The present bake is judged first: what is found of it already is no reason against others. Throws as `readings` where it cannot be baked. */
export function sifted(season: Season, points: readonly Point[], bakes: Baker, tell?: (done: number) => boolean): Sifted {
  const present = bakes.bake(pointFrom(season, season.formula), season.formula);
  const known = findingsOf(present.outcome.analysis);
  const why = new Map<string, number>();
  const sound: Baked[] = [];
  const unsound = (words: string): void => void why.set(words, (why.get(words) ?? 0) + 1);
  for (const [k, point] of points.entries()) {
    if (tell?.(k / points.length)) throw new CoreError("stopped", "The season was stopped before its bakes were chosen.");
    try {
      const baked = bakes.at(point);
      const found = baked.outcome.analysis.findings.find(({ id, severity }) => severity !== "note" && !known.has(id));
      if (found) unsound(found.message);
      else sound.push(baked);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      unsound(error.message);
    }
  }
  // Points whose amounts a scale shows as the same bake are one.
  const once = [...new Map(sound.map((one) => [JSON.stringify(one.x.map((value) => value.toFixed(3))), one])).values()];
  return {
    sound: once,
    unsound: [...why].map(([words, count]) => ({ why: words, count })).sort((a, b) => b.count - a.count).slice(0, 6),
    present,
  };
} // prettier-ignore
