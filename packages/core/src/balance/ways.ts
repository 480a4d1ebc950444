import { capital } from "../measure/list-words";
import type { Process } from "../formula/process-schema";
import type { Item } from "../formula/resolve";
import { exactly } from "../measure/range";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import type { FindingId } from "./finding";
import type { Finding } from "./finding-schema";

/** Something of a formula that is changed in thought. */
export interface Changed {
  items?: readonly Item[] | undefined;
  process?: Process | undefined;
  oven?: Oven | undefined;
  vessel?: Vessel | undefined;
}

/** A way out, in words and as what it changes. */
export interface Way extends Changed {
  say: string;
}

/** What would be found after a change; without fixes of its own. */
export type Again = (change: Changed) => readonly Pick<Finding, "id" | "severity">[];

/** Items with one set to so many grams; at nothing it is gone. */
export function withMass(items: readonly Item[], ingredient: Ingredient, grams: number): Item[] {
  const massG = Math.max(0, grams);
  const there = items.some((item) => item.ingredient.id === ingredient.id);
  const set = (item: Item): Item => (item.ingredient.id === ingredient.id ? { ...item, massG, grams: exactly(massG) } : item);
  const next = there ? items.map(set) : [...items, { ingredient, massG, grams: exactly(massG), locked: false }];
  return next.filter((item) => item.massG > 0);
}

const grave = (finding: Pick<Finding, "severity">): boolean => finding.severity !== "note";

/** Whether a way ends a finding and brings no new caution or stop. */
export function holds(id: FindingId, way: Changed, again: Again): boolean {
  const had = new Set(
    again({})
      .filter(grave)
      .map((finding) => finding.id),
  );
  const then = again(way);
  return !then.some((finding) => finding.id === id) && then.every((finding) => !grave(finding) || had.has(finding.id));
}

const MOST_TOLD = 2;

/**
 * What mends a finding, in words. The ways are only looked for where they are asked for: each that is told was applied and analysed again, with the
 * oven where `oven` says that the finding is of the bake.
 */
export type Prove = (id: FindingId, ways: (again: Again) => readonly (Way | null)[], oven?: "oven") => { fix?: string };

/** Nothing is looked for. */
export const unproven: Prove = () => ({});

/** The ways that hold, in the order in which a baker would try them; nothing where none does. */
export function fixOf(id: FindingId, ways: readonly (Way | null)[], again: Again): { fix?: string } {
  const held: string[] = [];
  const kinds = new Set<string>();
  for (const way of ways) {
    if (!way) continue;
    if (held.length >= MOST_TOLD) break;
    // Two amounts of the same are one way.
    const kind = way.say.replace(/[\d.]+[^ ]*|\([^)]*\)/g, "");
    if (kinds.has(kind) || !holds(id, way, again)) continue;
    kinds.add(kind);
    held.push(way.say);
  }
  const [first, ...rest] = held;
  if (first === undefined) return {};
  const told = [first, ...rest.map((way) => way.replace(/^./, (c) => c.toLowerCase()))].join(", or ");
  return { fix: `${capital(told)}.` };
}

/** The least amount, from `from` on in so many steps to `to`, at which something holds; null where it never does. The answer is bisected to a step. */
export function leastThat(from: number, to: number, good: (grams: number) => boolean, steps = 7): number | null {
  if (!good(to)) return null;
  let bad = from;
  let found = to;
  for (let i = 0; i < steps; i++) {
    const middle = (bad + found) / 2;
    if (good(middle)) found = middle;
    else bad = middle;
  }
  return found;
}
