import type { Plan, PlannedStep } from "./day";

/** One ingredient of a day: how much in all, and for what. */
export interface Needed {
  ingredientId: string;
  grams: number;
  /** By bake: grams of one batch and how many batches. */
  of: { bakeId: string; grams: number; batches: number }[];
}

/** Everything that is weighed on a day by ingredient, the largest first; grams. What was already weighed (`done` step ids) is left out. */
export function neededFor({ steps, evening }: Pick<Plan, "steps" | "evening">, done: ReadonlySet<string> = new Set()): Needed[] {
  const byIngredient = new Map<string, Map<string, { grams: number; batches: Set<number> }>>();
  for (const step of [...steps, ...evening]) {
    if (done.has(step.id)) continue;
    for (const { ingredientId, grams } of step.lines) {
      const bakes = byIngredient.get(ingredientId) ?? new Map<string, { grams: number; batches: Set<number> }>();
      byIngredient.set(ingredientId, bakes);
      const there = bakes.get(step.bakeId) ?? { grams: 0, batches: new Set<number>() };
      there.grams += grams;
      there.batches.add(step.batch);
      bakes.set(step.bakeId, there);
    }
  }
  return [...byIngredient]
    .map(([ingredientId, bakes]) => ({
      ingredientId,
      grams: [...bakes.values()].reduce((sum, { grams }) => sum + grams, 0),
      of: [...bakes].map(([bakeId, { grams, batches }]) => ({ bakeId, grams: grams / batches.size, batches: batches.size })),
    }))
    .sort((a, b) => b.grams - a.grams || a.ingredientId.localeCompare(b.ingredientId));
}

/** What is done long before hands are needed: out of the cold, soaking, fillings, in the order of the day. */
export const earlyOf = ({ steps }: Pick<Plan, "steps">): PlannedStep[] =>
  steps.filter(({ kind }) => kind === "temper" || kind === "soak" || kind === "sour" || kind === "component");

/** What the hands do next after a moment, and what is going on in it. */
export function aroundNow({ steps }: Pick<Plan, "steps">, now: number): { going: PlannedStep[]; next: PlannedStep | null } {
  const going = steps.filter(({ start, end }) => Date.parse(start) <= now && Date.parse(end) > now);
  const next = steps.filter(({ start, resources }) => Date.parse(start) > now && resources.length > 0)[0] ?? null;
  return { going, next };
}
