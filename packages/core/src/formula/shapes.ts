/** Bodies of formulas as they were stored by earlier programs. An entry brings a body from the shape before it to its own. */
type Upgrade = (body: Record<string, unknown>) => Record<string, unknown>;

/** From shape n to n + 1, in order; an old entry is never changed. */
export const formulaUpgrades: readonly Upgrade[] = [
  // Components, open lines and the recipe's own word came; a formula without them says what it said.
  (body) => ({ ...body, shape: 2 }),
];

/** The newest shape. */
export const FORMULA_SHAPE = 2;

/** A stored body in the newest shape. What is no object is given back as it is. */
export function upgradedFormula(body: unknown): unknown {
  if (typeof body !== "object" || body === null) return body;
  const shape = Number((body as { shape?: unknown }).shape ?? 1);
  return formulaUpgrades.slice(shape - 1).reduce((now, upgrade) => upgrade(now), body as Record<string, unknown>);
}
