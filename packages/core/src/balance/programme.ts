import { type Coefficients, type Constraint, solve } from "yalps";
import type { Ingredient } from "../pantry/ingredient";

/**
 * The smallest change as a mixed-integer linear programme. For every ingredient that may change, masses `up` and `down` (g, or steps of
 * half an egg) and a binary `use`; minimise Σ use + Σ (up + down)/reference + Σ weight·slack, under limits that are linear in mass.
 */
export interface Changeable {
  ingredient: Ingredient;
  nowG: number;
  mostG: number;
  /** What a change is measured against, g. */
  referenceG: number;
  /** Whole steps only, such as half an egg, g. */
  stepG?: number;
  /** Extra cost of touching it: above 0 for what is rather left alone. */
  reluctance?: number;
}

/** Σ coefficient(i)·mass(i) over the whole formula stays within min and max; with a weight it may be missed at that cost a unit. */
export interface Limit {
  id: string;
  name: string;
  coefficient: (ingredient: Ingredient) => number;
  min?: number;
  max?: number;
  weight?: number;
}

export interface Solved {
  /** New mass of everything that changed, g. */
  toG: Map<string, number>;
  cost: number;
  /** How far each elastic limit is missed, in its own unit. */
  missed: Map<string, number>;
}

const TIME_LIMIT_MS = 400;

/** Solves the programme, or gives null when the limits cannot be met together. `fixed` is what does not change. */
export function smallestChange(
  changeable: readonly Changeable[],
  fixed: readonly { ingredient: Ingredient; massG: number }[],
  limits: readonly Limit[],
): Solved | null {
  const variables = new Map<string, Coefficients>();
  const constraints = new Map<string, Constraint>();
  const binaries: string[] = [];
  const integers: string[] = [];
  for (const limit of limits) {
    let constant = 0;
    for (const { ingredient, massG } of fixed) constant += limit.coefficient(ingredient) * massG;
    for (const { ingredient, nowG } of changeable) constant += limit.coefficient(ingredient) * nowG;
    const bound: { min?: number; max?: number } = {};
    if (limit.min !== undefined) bound.min = limit.min - constant;
    if (limit.max !== undefined) bound.max = limit.max - constant;
    constraints.set(`limit:${limit.id}`, bound);
    if (limit.weight !== undefined) {
      variables.set(`short:${limit.id}`, { cost: limit.weight, [`limit:${limit.id}`]: 1 });
      variables.set(`over:${limit.id}`, { cost: limit.weight, [`limit:${limit.id}`]: -1 });
    }
  }
  for (const { ingredient, nowG, mostG, referenceG, stepG = 1, reluctance = 0 } of changeable) {
    const id = ingredient.id;
    for (const [way, sign, room] of [
      ["up", 1, mostG - nowG],
      ["down", -1, nowG],
    ] as const) {
      if (room <= 1e-9) continue;
      const coefficients: Record<string, number> = { cost: stepG / referenceG, [`cap:${way}:${id}`]: stepG };
      for (const limit of limits) {
        const c = limit.coefficient(ingredient);
        if (c !== 0) coefficients[`limit:${limit.id}`] = sign * c * stepG;
      }
      variables.set(`${way}:${id}`, coefficients);
      constraints.set(`cap:${way}:${id}`, { max: 0 });
      if (stepG !== 1) integers.push(`${way}:${id}`);
    }
    const use: Record<string, number> = { cost: 1 + reluctance };
    if (mostG - nowG > 1e-9) use[`cap:up:${id}`] = -(mostG - nowG);
    if (nowG > 1e-9) use[`cap:down:${id}`] = -nowG;
    variables.set(`use:${id}`, use);
    binaries.push(`use:${id}`);
  }
  const solution = solve(
    { direction: "minimize", objective: "cost", constraints, variables, binaries, integers },
    { timeout: TIME_LIMIT_MS, tolerance: 0.01, includeZeroVariables: false },
  );
  if (solution.status !== "optimal" && solution.status !== "timedout") return null;
  if (!Number.isFinite(solution.result)) return null;
  return read(changeable, new Map(solution.variables), solution.result);
}

function read(changeable: readonly Changeable[], values: Map<string, number>, cost: number): Solved {
  const toG = new Map<string, number>();
  const missed = new Map<string, number>();
  for (const { ingredient, nowG, stepG = 1 } of changeable) {
    const by = ((values.get(`up:${ingredient.id}`) ?? 0) - (values.get(`down:${ingredient.id}`) ?? 0)) * stepG;
    if (Math.abs(by) > 1e-6) toG.set(ingredient.id, Math.max(0, nowG + by));
  }
  for (const [key, value] of values) {
    const match = /^(short|over):(.*)$/.exec(key);
    if (match?.[2] && value > 1e-9) missed.set(match[2], (match[1] === "short" ? -1 : 1) * value);
  }
  return { toG, cost, missed };
}
