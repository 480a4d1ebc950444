import { z } from "zod";
import { allergensOf, proposedLine, readingsOf } from "../balance/proposal";
import { CoreError } from "../errors";
import type { Opened } from "../formula/open";
import { type Range, rangeSchema } from "../measure/range-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { type Goal, goalName, goals } from "./goals";
import { gramsIn, type GroupName, scaledGroup, withMore } from "./groups";
import { bakeOf, crumbWater, type Outcome } from "./outcome";
import { changesOf, faultRemedySchema, findingsOf, forScale } from "./remedy";

export const nextSchema = z.object({
  goal: z.enum(goals),
  now: z.string(),
  ways: z.array(
    faultRemedySchema.extend({
      /** What it does to what is wished for: from and to, with its range. */
      effect: rangeSchema,
      unit: z.string(),
      words: z.string(),
      /** What it costs elsewhere, in words. */
      costs: z.array(z.string()),
    }),
  ),
});
export type Next = z.infer<typeof nextSchema>;

interface Measure {
  of: (outcome: Outcome) => number;
  /** 1 where more of it is wished for. */
  side: 1 | -1;
  unit: string;
  /** How far a difference of two simulated bakes may be off, as a share of it. */
  spread: number;
  /** The least difference that anybody notices. */
  least: number;
  digits: number;
  name: string;
}

const measures: Record<Goal, Measure> = {
  taller: { of: ({ simulation }) => simulation.cooledMm.middle, side: 1, unit: "mm", spread: 0.5, least: 1.5, digits: 0, name: "the middle stands" },
  moister: { of: crumbWater, side: 1, unit: "% water", spread: 0.35, least: 0.5, digits: 1, name: "the crumb holds" },
  "less-crumbly": { of: ({ analysis }) => 100 * Math.min(1.5, analysis.body.binder.adequacy), side: 1, unit: "% of the binder wanted", spread: 0.4, least: 8, digits: 0, name: "it is bound by" },
  "less-sodium": { of: ({ analysis: { batch }, simulation: { loss } }) => batch.sodiumMg / (batch.massG * (1 - loss.oven / 100)) * 100, side: -1, unit: "mg sodium in 100 g", spread: 0.1, least: 15, digits: 0, name: "it has" },
  sooner: { of: ({ simulation }) => simulation.done.mid, side: -1, unit: "min", spread: 0.4, least: 1, digits: 0, name: "it takes" },
}; // prettier-ignore

interface Candidate {
  title: string;
  input: Opened;
}

/** Changes of one thing that a baker would think of. */
function candidates(input: Opened, planned: Outcome, shelf: Shelf): Candidate[] {
  const group = (name: GroupName, factor: number, title: string): Candidate[] => (gramsIn(input, name, shelf) > 0 ? [{ title, input: scaledGroup(input, name, factor, shelf) }] : []);
  const flour = gramsIn(input, "flour", shelf);
  const { oven } = planned.analysis.given;
  return [
    ...group("leavening", 1.2, "A fifth more leavening"),
    ...group("leavening", 0.8, "A fifth less leavening"),
    ...group("soda", 0.75, "A quarter less soda"),
    ...group("powder", 0.75, "A quarter less powder"),
    ...group("salt", 0.6, "Two fifths less salt"),
    ...group("water", 1.07, "A little more liquid"),
    ...group("water", 0.93, "A little less liquid"),
    ...group("egg", 1.25, "A quarter more egg"),
    ...group("fat", 1.2, "A fifth more fat"),
    ...group("sugar", 1.15, "A little more sugar"),
    ...group("binder", 1.3, "Three tenths more binder"),
    ...(gramsIn(input, "binder", shelf) === 0 && flour > 0 ? [{ title: "Xanthan, half a per cent of the flour", input: withMore(input, "xanthan", 0.005 * flour) }] : []),
    ...(flour > 0 ? [{ title: "Psyllium husk, 2 % of the flour", input: withMore(input, "psyllium-husk", 0.02 * flour) }] : []),
    ...(oven.mode === "hob" ? [] : [10, -10].map((by) => ({ title: `The oven ${Math.abs(by)} °C ${by > 0 ? "hotter" : "cooler"}`, input: { ...input, oven: { ...oven, celsius: oven.celsius + by } } }))),
  ];
} // prettier-ignore

const MOST = 3;

/**
 * The next change of one thing worth trying for a goal: each candidate is baked, those that bring a new fault are dropped, and the rest told by how far
 * they move what is wished for against how sure that is. `tried` names changes that were made before, by title. Throws as `readings`.
 */
export function nextFor(input: Opened, goal: Goal, tried: ReadonlySet<string> = new Set(), shelf: Shelf = builtInShelf): Next {
  const planned = bakeOf(input, shelf);
  const measure = measures[goal];
  const now = measure.of(planned);
  const known = findingsOf(planned.analysis);
  const found = candidates(input, planned, shelf).flatMap((candidate) => {
    if (tried.has(candidate.title)) return [];
    try {
      const after = forScale(candidate.input, input);
      const then = bakeOf(after, shelf);
      const gain = measure.side * (measure.of(then) - now);
      if (gain < measure.least || [...findingsOf(then.analysis)].some((id) => !known.has(id))) return [];
      return [{ candidate, after, then, gain }];
    } catch (error) {
      if (error instanceof CoreError) return [];
      throw error;
    }
  });
  const ways = found
    .sort((a, b) => b.gain - a.gain)
    .slice(0, MOST)
    .map(({ candidate, after, then, gain }) => {
      const to = measure.of(then);
      const half = measure.spread * gain;
      const effect: Range = { low: to - half, mid: to, high: to + half };
      const costs = (Object.keys(measures) as Goal[]).flatMap((other) => {
        if (other === goal) return [];
        const { of, side, least, unit, digits, name } = measures[other];
        const moved = side * (of(then) - of(planned));
        return moved < -least ? [`${name} ${of(then).toFixed(digits)} ${unit} in place of ${of(planned).toFixed(digits)}`] : [];
      });
      const text = (value: number): string => value.toFixed(measure.digits);
      const [was, is] = [allergensOf(input.lines, shelf), allergensOf(after.lines, shelf)];
      return {
        title: candidate.title,
        why: `Wished for: ${goalName[goal].toLowerCase()}. One thing is changed.`,
        changes: changesOf(input, after),
        lines: after.lines.map(proposedLine),
        before: readingsOf(planned.analysis),
        after: readingsOf(then.analysis),
        allergensAdded: [...is].filter((one) => !was.has(one)),
        allergensRemoved: [...was].filter((one) => !is.has(one)),
        ...(after.oven !== input.oven && after.oven ? { set: { oven: after.oven } } : {}),
        effect,
        unit: measure.unit,
        words: `Then ${measure.name} ${text(Math.min(effect.low, effect.high))} to ${text(Math.max(effect.low, effect.high))} ${measure.unit}; now ${text(now)}.`,
        costs,
      };
    });
  return { goal, now: `${now.toFixed(measure.digits)} ${measure.unit}`, ways };
}
